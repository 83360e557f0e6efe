import { useId } from "react";
import type { SpacedEdge as Edge } from "../../api/client";
import styles from "./spacing.module.css";

interface Props {
  edge: Edge;
  name: string;
}

/** The edge of an opening laid flat, its top on the left: where fastenings are now, and where they come to stand. */
export function SpacedEdge({ edge, name }: Props) {
  const title = useId();
  const [before = 0, after = 0] = edge.edge_mm;
  const width = Math.max(before, after, 1);
  const height = width * 0.11;
  const middle = height / 2;
  const dot = width * 0.009;
  return (
    <svg
      className={styles["edge"]}
      viewBox={`${-dot} 0 ${width + 2 * dot} ${height}`}
      role="img"
      aria-labelledby={title}
    >
      <title id={title}>{name}</title>
      <rect className={styles["gone"]} x={0} y={height * 0.2} width={before} height={height * 0.6} />
      <rect className={styles["cloth"]} x={0} y={height * 0.2} width={after} height={height * 0.6} />
      <line className={styles["end"]} x1={after} x2={after} y1={0} y2={height} />
      {edge.before_mm.map((at) => (
        <line
          key={at}
          className={styles["before"]}
          x1={at}
          x2={at}
          y1={middle - 2.4 * dot}
          y2={middle + 2.4 * dot}
        />
      ))}
      {edge.line_mm != null && (
        <line className={styles["line"]} x1={edge.line_mm} x2={edge.line_mm} y1={0} y2={height} />
      )}
      {edge.places_mm.map((at) => (
        <circle key={at} className={styles["place"]} cx={at} cy={middle} r={dot} />
      ))}
    </svg>
  );
}
