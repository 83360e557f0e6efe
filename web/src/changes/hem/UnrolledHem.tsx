import { useId } from "react";
import type { Unrolled } from "../../api/client";
import styles from "./hem.module.css";

interface Props {
  edge: Unrolled;
  name: string;
}

/** A closed edge laid out flat, the front in the middle: how it hangs now, and where it is folded, cut and stitched. */
export function UnrolledHem({ edge, name }: Props) {
  const title = useId();
  const { width_mm: width, from_mm: from, to_mm: to, raw_mm: raw } = edge;
  // Upwards as on the body; as wide as it is, and stretched upwards so that a centimetre can be seen.
  const height = to - from;
  const stretch = (width * 0.3) / height;
  const y = (up: number) => (to - up) * stretch;
  const letters = width * 0.032;
  return (
    <svg
      className={styles["unrolled"]}
      viewBox={`-8 ${-1.7 * letters} ${width + 16} ${height * stretch + 2 * letters}`}
      role="img"
      aria-labelledby={title}
    >
      <title id={title}>{name}</title>
      <rect className={styles["cloth"]} x={0} y={0} width={width} height={y(0)} />
      <rect className={styles["turned-up"]} x={0} y={y(0)} width={width} height={y(raw) - y(0)} />
      <line className={styles["old-fold"]} x1={0} x2={width} y1={y(0)} y2={y(0)} />
      {edge.seams.map((seam) => (
        <g key={seam.name}>
          <line className={styles["crossing"]} x1={seam.at_mm} x2={seam.at_mm} y1={0} y2={y(raw)} />
          <text
            x={seam.at_mm}
            y={-0.5 * letters}
            fontSize={letters}
            textAnchor={seam.at_mm === 0 ? "start" : "middle"}
          >
            {seam.name}
          </text>
        </g>
      ))}
      <g transform={`translate(0 ${to * stretch}) scale(1 ${-stretch})`}>
        {edge.cut && <path className={styles["cut"]} vectorEffect="non-scaling-stroke" d={edge.cut} />}
        {edge.stitching && (
          <path className={styles["stitching"]} vectorEffect="non-scaling-stroke" d={edge.stitching} />
        )}
        <path className={styles["fold"]} vectorEffect="non-scaling-stroke" d={edge.fold} />
      </g>
    </svg>
  );
}
