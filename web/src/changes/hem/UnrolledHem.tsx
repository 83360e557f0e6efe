import { useId, useRef, type KeyboardEvent, type PointerEvent } from "react";
import type { MarkOnEdge, SolvedMark, Unrolled } from "../../api/client";
import styles from "./hem.module.css";

interface Props {
  edge: Unrolled;
  name: string;
  /** The places where it can be marked. */
  marks: SolvedMark[];
  /** The finest mark of the tape, in nm; nought where nothing can be dragged. */
  step: number;
  /** A mark is moved so that so many nm more are taken off there. */
  onMark: (mark: number, nm: number, done: boolean) => void;
  onLetGo: () => void;
}

const NM_PER_MM = 1e6;

/** A closed edge laid out flat, the front in the middle: how it hangs now, and where it is folded, cut and stitched. Its marks can be dragged. */
export function UnrolledHem({ edge, name, marks, step, onMark, onLetGo }: Props) {
  const title = useId();
  const { width_mm: width, from_mm: from, to_mm: to, raw_mm: raw } = edge;
  // Upwards as on the body; as wide as it is, and stretched upwards so that a centimetre can be seen.
  const height = to - from;
  const stretch = (width * 0.3) / height;
  const y = (up: number) => (to - up) * stretch;
  const letters = width * 0.032;
  const margin = width * 0.02;
  return (
    <svg
      className={styles["unrolled"]}
      viewBox={`${-margin} ${-1.7 * letters} ${width + 2 * margin} ${height * stretch + 2 * letters}`}
      role="group"
      aria-labelledby={title}
    >
      <title id={title}>{name}</title>
      <rect className={styles["cloth"]} x={0} y={0} width={width} height={y(0)} />
      <rect className={styles["turned-up"]} x={0} y={y(0)} width={width} height={y(raw) - y(0)} />
      <line className={styles["old-fold"]} x1={0} x2={width} y1={y(0)} y2={y(0)} />
      {edge.seams.map((seam) => (
        <g key={`${seam.name} ${seam.at_mm}`}>
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
        {edge.splay && <path className={styles["splay"]} d={edge.splay} />}
        {edge.cut && <path className={styles["cut"]} vectorEffect="non-scaling-stroke" d={edge.cut} />}
        {edge.stitching && (
          <path className={styles["stitching"]} vectorEffect="non-scaling-stroke" d={edge.stitching} />
        )}
        <path className={styles["fold"]} data-line="new" vectorEffect="non-scaling-stroke" d={edge.fold} />
      </g>
      {step > 0 &&
        edge.marks.map((there) => (
          <Mark
            key={there.mark}
            there={there}
            says={marks[there.mark]}
            at={{ x: there.at_mm, y: y(there.up_mm) }}
            size={width * 0.012}
            stretch={stretch}
            step={step}
            onMark={onMark}
            onLetGo={onLetGo}
          />
        ))}
    </svg>
  );
}

interface MarkProps extends Pick<Props, "step" | "onMark" | "onLetGo"> {
  there: MarkOnEdge;
  says: SolvedMark | undefined;
  at: { x: number; y: number };
  size: number;
  stretch: number;
}

/** A mark that is dragged up or down, or nudged with the arrows. */
function Mark({ there, says, at, size, stretch, step, onMark, onLetGo }: MarkProps) {
  const from = useRef<{ y: number; pxPerMm: number } | null>(null);
  const dragged = (event: PointerEvent) => {
    const start = from.current;
    return start && ((start.y - event.clientY) / start.pxPerMm) * NM_PER_MM;
  };
  const letGo = () => {
    from.current = null;
    onLetGo();
  };
  const nudge = (event: KeyboardEvent) => {
    if (event.key === "Escape" && from.current) letGo();
    const more = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (!more || from.current) return;
    event.preventDefault();
    onMark(there.mark, more * step, true);
  };
  return (
    <g
      className={styles["mark"]}
      transform={`translate(${at.x} ${at.y})`}
      role="button"
      tabIndex={0}
      data-mark={says?.name}
      aria-label={`Mark at ${says?.name ?? ""}: ${says?.off ?? ""}`}
      onKeyDown={nudge}
      onPointerDown={(event) => {
        const drawn = event.currentTarget.ownerSVGElement?.getScreenCTM();
        event.currentTarget.setPointerCapture(event.pointerId);
        event.currentTarget.focus();
        from.current = { y: event.clientY, pxPerMm: (drawn?.d ?? 1) * stretch };
      }}
      onPointerMove={(event) => {
        const nm = dragged(event);
        if (nm !== null) onMark(there.mark, nm, false);
      }}
      onPointerUp={(event) => {
        const nm = dragged(event);
        const moved = Math.abs(event.clientY - (from.current?.y ?? event.clientY)) > 2;
        from.current = null;
        if (nm !== null && moved) onMark(there.mark, nm, true);
        else onLetGo();
      }}
      onPointerCancel={letGo}
    >
      <title>{`${says?.name ?? ""}: ${says?.off ?? ""}`}</title>
      <circle className={styles["grip"]} r={2.6 * size} />
      <circle r={size} />
    </g>
  );
}
