import { clsx } from "clsx";
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { PinResult, SolvedLine, Strip } from "../api/client";
import styles from "./SeamStrip.module.css";

interface Props {
  /** What is laid straight, in words. */
  name: string;
  seam: SolvedLine;
  /** The unit of its figures. */
  unit: string;
  /** The finest mark of the tape, in nm: what one nudge moves, and what a drag snaps to. */
  mark: number;
  /** Both scales the same, or sideways stretched so that small offsets can be seen. */
  stretched: boolean;
  picked: number | null;
  onPick: (pin: number | null) => void;
  onPin: (pin: number, to: { station: number; amount: number }, done: boolean) => void;
  onRemove: (pin: number) => void;
  onEnd: (station: number, done: boolean) => void;
  /** What was dragged goes back to where it was. */
  onLetGo: () => void;
}

const LEFT = 14;
const RIGHT = 34;
const HEAD = 24;
const FOOT = 30;
/** Room for the deepest offset of a side when stretched, in px. */
const DEEP = 92;
/** Clear between the lines of both sides where they go beyond the allowance, in px. */
const PIN = 10;
/** Beyond the deepest offset: the name of the side, clear of its line. */
const NAME = 18;
const NM_PER_MM = 1e6;
/** As wide as a letter of a level's name is at most, on average, in px. */
const LETTER = 7.5;

/** One seam laid straight: the wearer's left above, the right below, their allowances between the two old stitchings. */
export function SeamStrip(props: Props) {
  const { seam, stretched, mark } = props;
  const { strip } = seam;
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame);
  const across = (width - LEFT - RIGHT) / strip.length_mm;
  const deepest = Math.max(strip.deepest_mm, 10);
  const sideways = stretched ? Math.min(DEEP / deepest, 6 * across) : across;
  const channel =
    Math.max(strip.outside_mm * sideways, 3) + (strip.outside_mm > strip.allowance_mm ? PIN : 0);
  const allowance = Math.max(strip.allowance_mm * sideways, 3);
  const depth = Math.max(deepest * sideways, 30) + NAME;
  // Where the old stitching of each side lies, and which way its offsets go.
  const sides = strip.sides.map((side, index) => ({
    side,
    lines: strip.lines[index] ?? strip.lines[0],
    axis: index === 0 ? HEAD + depth : HEAD + depth + 2 * channel,
    up: index === 0 ? -1 : 1,
  }));
  const height = HEAD + 2 * depth + 2 * channel + FOOT;
  const x = (mm: number) => LEFT + mm * across;
  const top = HEAD - 6;
  const bottom = height - FOOT + 6;
  return (
    <div ref={frame}>
      <svg
        className={styles["strip"]}
        viewBox={`0 0 ${width} ${height}`}
        height={height}
        role="group"
        aria-label={`The ${props.name} laid straight, ${seam.datum} on the left`}
      >
        {[HEAD + depth, HEAD + depth + 2 * channel - allowance].map((y) => (
          <rect
            key={y}
            className={styles["channel"]}
            x={x(0)}
            y={y}
            width={strip.length_mm * across}
            height={allowance}
          />
        ))}
        {strip.blocks.map((block) => (
          <g key={block.what}>
            <title>{`${block.what}, ${block.place}`}</title>
            <rect
              className={styles["block"]}
              x={x(block.from_mm)}
              y={HEAD + depth - 7}
              width={(block.to_mm - block.from_mm) * across}
              height={2 * channel + 14}
              fillOpacity={0.8}
            />
            {(block.to_mm - block.from_mm) * across > 74 && (
              <text
                className={styles["minor"]}
                x={x((block.from_mm + block.to_mm) / 2)}
                y={HEAD + depth - 12}
                textAnchor="middle"
              >
                {block.what}
              </text>
            )}
          </g>
        ))}
        {named(strip, x, width).map(({ name, at, anchor }) => (
          <g key={name}>
            <line className={styles["level"]} x1={at} x2={at} y1={top} y2={bottom} />
            <text className={styles["minor"]} x={at} y={14} textAnchor={anchor}>
              {name}
            </text>
          </g>
        ))}
        {sides.map(({ side, lines, axis, up }) => (
          <g key={side.side}>
            <g transform={`translate(${LEFT} ${axis}) scale(${across} ${up * sideways})`}>
              {lines?.tolerance && <path className={styles["band"]} d={lines.tolerance} />}
            </g>
            <line className={styles["old"]} x1={x(0)} x2={x(strip.length_mm)} y1={axis} y2={axis} />
            <g transform={`translate(${LEFT} ${axis}) scale(${across} ${up * sideways})`}>
              {lines?.old_line && (
                <path className={styles["old-fold"]} vectorEffect="non-scaling-stroke" d={lines.old_line} />
              )}
              {lines?.cut && (
                <path className={styles["cut"]} vectorEffect="non-scaling-stroke" d={lines.cut} />
              )}
              {lines?.back_line && (
                <path
                  className={clsx(styles["new"], styles["back"])}
                  data-line="new"
                  vectorEffect="non-scaling-stroke"
                  d={lines.back_line}
                />
              )}
              {lines?.line && (
                <path
                  className={styles["new"]}
                  data-line="new"
                  vectorEffect="non-scaling-stroke"
                  d={lines.line}
                />
              )}
            </g>
            <text
              x={side.is_quiet_at_datum ? x(0) : width - RIGHT + 2}
              y={axis + up * depth + (up < 0 ? 12 : -2)}
              textAnchor={side.is_quiet_at_datum ? "start" : "end"}
              className={styles["side-name"]}
            >
              {width < 420 ? side.short_words : side.words}
            </text>
          </g>
        ))}
        <Stations length={strip.length_mm} across={across} unit={props.unit} y={bottom + 18} />
        {seam.pins.map((pin, index) =>
          sides
            .filter(({ side }) => side.side === pin.side || side.is_copied)
            .map(({ side, axis, up }) => (
              <Pin
                key={`${index} ${side.side}`}
                {...props}
                index={index}
                pin={pin}
                isCopy={side.side !== pin.side}
                at={{
                  x: x(pin.station.nm / NM_PER_MM),
                  y: axis + (up * pin.drawn.nm * sideways) / NM_PER_MM,
                }}
                scale={{ across, sideways: up * sideways }}
              />
            )),
        )}
        {seam.upper_station &&
          sides.map(({ side, axis, up }) => (
            <EndHandle
              key={side.side}
              {...props}
              station={seam.upper_station?.nm ?? 0}
              words={seam.ends[1] ?? ""}
              at={{ x: x((seam.upper_station?.nm ?? 0) / NM_PER_MM), y: axis }}
              up={up}
              across={across}
              mark={mark}
            />
          ))}
      </svg>
    </div>
  );
}

function useWidth(frame: React.RefObject<HTMLDivElement | null>): number {
  const [width, setWidth] = useState(800);
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(() => {
      setWidth(Math.max(element.clientWidth, 300));
    });
    observer.observe(element);
    return () => {
      observer.disconnect();
    };
  }, [frame]);
  return width;
}

function anchorOf(at: number, width: number): "start" | "middle" | "end" {
  if (at < 40) return "start";
  return at > width - 60 ? "end" : "middle";
}

/** The levels from left to right, and how each name stands at its line: where two would touch the left one turns away, and if need be the other too. */
function named(strip: Strip, x: (mm: number) => number, width: number) {
  const levels = strip.levels.map(({ name, at_mm }) => {
    const at = x(at_mm);
    return { name, at, anchor: anchorOf(at, width) };
  });
  levels.sort((a, b) => a.at - b.at);
  levels.forEach((level, n) => {
    const next = levels[n + 1];
    if (!next || level.anchor !== "middle" || next.anchor !== "middle") return;
    const half = (LETTER * next.name.length) / 2;
    const room = next.at - level.at - LETTER;
    if (room < half + (LETTER * level.name.length) / 2) level.anchor = "end";
    if (room < half) next.anchor = "start";
  });
  return levels;
}

function Stations({ length, across, unit, y }: { length: number; across: number; unit: string; y: number }) {
  const mm = unit === "in" ? 25.4 : 10;
  const room = 60;
  const step = [5, 10, 20].find((marks) => across * mm * marks > room) ?? 50;
  const count = Math.floor(length / mm / step);
  return (
    <g>
      {Array.from({ length: count + 1 }, (_, n) => (
        <text
          key={n}
          className={styles["minor"]}
          x={LEFT + n * step * mm * across}
          y={y}
          textAnchor={n === 0 ? "start" : "middle"}
        >
          {n === 0 ? `0 ${unit}` : n * step}
        </text>
      ))}
    </g>
  );
}

interface PinProps extends Props {
  index: number;
  pin: PinResult;
  isCopy: boolean;
  at: { x: number; y: number };
  scale: { across: number; sideways: number };
}

const snap = (nm: number, mark: number) => Math.round(nm / mark) * mark;

function Pin(props: PinProps) {
  const { index, pin, isCopy, at, scale, seam, mark, picked, onPick, onPin, onRemove, onLetGo } = props;
  const from = useRef<{ x: number; y: number; station: number; amount: number } | null>(null);
  if (isCopy) {
    return (
      <g className={clsx(styles["pin"], styles["copy"])} transform={`translate(${at.x} ${at.y})`} aria-hidden>
        <circle r={4} />
      </g>
    );
  }
  const within = (station: number) => Math.min(Math.max(station, 0), seam.length.nm);
  const dragged = (event: PointerEvent) => {
    const start = from.current;
    if (!start) return null;
    const station = start.station + ((event.clientX - start.x) / scale.across) * NM_PER_MM;
    const offset = ((event.clientY - start.y) / scale.sideways) * NM_PER_MM;
    const amount = start.amount + offset * pin.amount_per_drawn;
    return { station: within(snap(station, mark)), amount: Math.max(snap(amount, mark), 0) };
  };
  const letGo = () => {
    from.current = null;
    onLetGo();
  };
  const nudge = (event: KeyboardEvent) => {
    if (from.current) {
      // A hand that drags has no key but the one that gives up.
      if (event.key === "Escape") letGo();
      return;
    }
    const [along, more] = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[
      event.key
    ] ?? [0, 0];
    if (along || more) {
      event.preventDefault();
      const station = within(snap(pin.station.nm, mark) + (along ?? 0) * mark);
      const amount = Math.max(snap(pin.amount.nm, mark) + (more ?? 0) * mark, 0);
      onPin(
        index,
        { station: along ? station : pin.station.nm, amount: more ? amount : pin.amount.nm },
        true,
      );
    } else if (event.key === "Delete" || event.key === "Backspace") {
      event.preventDefault();
      onRemove(index);
    }
  };
  return (
    <g
      className={clsx(styles["pin"], picked === index && styles["picked"], pin.stands_off && styles["off"])}
      transform={`translate(${at.x} ${at.y})`}
      role="button"
      tabIndex={0}
      data-pin={index}
      aria-label={`Pin ${index + 1}, ${pin.station.text} from the ${seam.datum}, ${pin.amount.text}, the line passes ${pin.beside.text} beside it`}
      onFocus={() => {
        onPick(index);
      }}
      onKeyDown={nudge}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        event.currentTarget.focus();
        from.current = { x: event.clientX, y: event.clientY, station: pin.station.nm, amount: pin.amount.nm };
      }}
      onPointerMove={(event) => {
        const to = dragged(event);
        if (to) onPin(index, to, false);
      }}
      onPointerUp={(event) => {
        const to = dragged(event);
        const start = from.current;
        from.current = null;
        if (to && start && (Math.abs(event.clientX - start.x) > 2 || Math.abs(event.clientY - start.y) > 2)) {
          onPin(index, to, true);
        } else if (start) {
          onLetGo();
        }
      }}
      onPointerCancel={letGo}
    >
      <title>{`${pin.station.text} from the ${seam.datum}: ${pin.amount.text} read, ${pin.whole.text} altogether; the line passes ${pin.beside.text} beside it`}</title>
      <circle className={styles["grip"]} r={18} />
      <circle r={6} />
    </g>
  );
}

interface EndProps extends Props {
  station: number;
  words: string;
  at: { x: number; y: number };
  up: number;
  across: number;
}

function EndHandle({ seam, station, words, at, up, across, mark, onEnd, onLetGo }: EndProps) {
  const from = useRef<{ x: number; station: number } | null>(null);
  const within = (nm: number) => Math.min(Math.max(snap(nm, mark), 0), seam.length.nm);
  const dragged = (event: PointerEvent) => {
    const start = from.current;
    return start && within(start.station + ((event.clientX - start.x) / across) * NM_PER_MM);
  };
  const letGo = () => {
    from.current = null;
    onLetGo();
  };
  return (
    <g
      className={styles["end"]}
      transform={`translate(${at.x} ${at.y})`}
      role="slider"
      tabIndex={0}
      aria-label={`End of the line: ${words}`}
      aria-valuemin={0}
      aria-valuemax={seam.length.nm / NM_PER_MM}
      aria-valuenow={station / NM_PER_MM}
      aria-valuetext={words}
      onKeyDown={(event) => {
        const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
        if (step) {
          event.preventDefault();
          onEnd(within(station + step * mark), true);
        } else if (event.key === "Escape" && from.current !== null) {
          letGo();
        }
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = { x: event.clientX, station };
      }}
      onPointerMove={(event) => {
        const to = dragged(event);
        if (to !== null) onEnd(to, false);
      }}
      onPointerUp={(event) => {
        const to = dragged(event);
        // Who only touches it decides nothing: an end that was assumed stays so.
        if (to === null || Math.abs(event.clientX - (from.current?.x ?? 0)) <= 2) {
          letGo();
          return;
        }
        from.current = null;
        onEnd(to, true);
      }}
      onPointerCancel={letGo}
    >
      <title>{words}</title>
      <rect x={-16} y={up > 0 ? -14 : -18} width={32} height={32} />
      <path d={`M0 0 l-7 ${up * 13} h14 z`} />
    </g>
  );
}
