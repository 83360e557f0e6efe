import { useId } from "react";
import type { SolvedGathers } from "../../api/client";
import styles from "./gathers.module.css";

/** The long edge laid flat with what each pleat takes, and under it what it is brought to. */
export function PleatedEdge({ shows, name }: { shows: SolvedGathers; name: string }) {
  const title = useId();
  const [long = 0, short = 0] = shows.edges_mm;
  const height = long * 0.035;
  return (
    <svg className={styles["edge"]} viewBox={`0 0 ${long} ${3 * height}`} role="img" aria-labelledby={title}>
      <title id={title}>{name}</title>
      <rect className={styles["long"]} width={long} height={height} />
      {shows.pleats_mm.map(([from = 0, to = 0]) => (
        <rect key={from} className={styles["pleat"]} x={from} width={to - from} height={height} />
      ))}
      <rect className={styles["short"]} y={2 * height} width={short} height={height} />
      <path
        className={styles["brought"]}
        d={`M0,${height} L0,${2 * height} M${long},${height} L${short},${2 * height}`}
      />
    </svg>
  );
}
