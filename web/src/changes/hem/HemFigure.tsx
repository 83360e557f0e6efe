import { clsx } from "clsx";
import type { HemFigure as Figure } from "../../api/client";
import styles from "./hem.module.css";

/** The wearer from the waist down, in shoes on the floor: where the edge hangs now and after, and what a length is measured from. */
export function HemFigure({ figure }: { figure: Figure }) {
  const [left = 0, top = 0, width = 0, height = 0] = figure.view;
  const letters = height * 0.043;
  const names = left + width - 0.99 * NAMES;
  // Names that would touch each other are moved down.
  const lines: { line: Figure["lines"][number]; at: number }[] = [];
  for (const line of figure.lines.filter((line) => line.y_mm > top)) {
    const above = lines.at(-1)?.at ?? -Infinity;
    lines.push({ line, at: Math.max(line.y_mm, above + 1.15 * letters) });
  }
  const deep = Math.max(height, (lines.at(-1)?.at ?? top) + 0.6 * letters - top);
  return (
    <svg
      className={styles["figure"]}
      viewBox={`${left} ${top} ${width} ${deep}`}
      role="img"
      aria-label="Where it hangs on the wearer"
    >
      {figure.body.map((path) => (
        <path key={path} className={styles["body"]} d={path} />
      ))}
      <path className={styles["shoes"]} d={figure.shoes} />
      {lines.map(({ line, at }) => (
        <g key={line.name} className={clsx(styles["across"], styles[`across-${line.is}`])}>
          <path d={`M${left},${line.y_mm} H${names - 40} L${names - 8},${at}`} />
          <text x={names} y={at + 0.33 * letters} fontSize={letters}>
            {line.name}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** Room for their names, in millimetres of the drawing. */
const NAMES = 420;
