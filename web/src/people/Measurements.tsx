import { DeleteOutlined } from "@ant-design/icons";
import { useQuery } from "@tanstack/react-query";
import { Button, Popover } from "antd";
import { clsx } from "clsx";
import { useRef } from "react";
import type { BodyMeasurement, Complaint, MeasurementLine, Taken, Wearer } from "../api/client";
import * as queries from "../api/queries";
import { PictureView } from "../drawing/PictureView";
import { bare } from "../drawing/words";
import { Words } from "../drawing/Words";
import { LengthField } from "../document/LengthField";
import styles from "./people.module.css";

interface Props {
  lines: MeasurementLine[];
  wearer: Wearer;
  /** The day that is being entered. */
  day: string;
  errors: Complaint[];
  onSet: (taken: Omit<Taken, "date">) => void;
  onForget: (index: number) => void;
  onColumn: (from: number, pasted: string[]) => void;
}

/** Every measurement in body order: how to take it, what it is now, what it was, what it unlocks. */
export function Measurements({ lines, wearer, day, errors, onSet, onForget, onColumn }: Props) {
  const list = useRef<HTMLTableSectionElement>(null);
  const pictures = useQuery(queries.measurements);
  const next = (from: HTMLElement) => {
    const fields = [...(list.current?.querySelectorAll<HTMLInputElement>("input.figure") ?? [])];
    const at = fields.findIndex((f) => from.contains(f) || f === document.activeElement);
    fields[at + 1]?.focus();
  };
  return (
    <table className={styles["measurements"]}>
      <thead>
        <tr>
          <th scope="col">Measurement</th>
          <th scope="col">Now</th>
          <th scope="col">Over time</th>
          <th scope="col">What it is for</th>
        </tr>
      </thead>
      <tbody ref={list}>
        {lines.map((line, index) => (
          <Line
            key={line.what}
            line={line}
            entry={entryOf(wearer, line.what, day)}
            complaint={(field) => complaintOf(wearer, errors, line.what, day, field)}
            picture={pictures.data?.find((p) => p.what === line.what)?.picture}
            onSet={onSet}
            onForget={onForget}
            onColumn={(pasted) => {
              onColumn(index, pasted);
            }}
            onNext={() => {
              next(document.activeElement as HTMLElement);
            }}
          />
        ))}
      </tbody>
    </table>
  );
}

/** What was entered for the day that is open. */
function entryOf(wearer: Wearer, what: BodyMeasurement, day: string): Taken | undefined {
  return wearer.measurements?.find((t) => t.what === what && t.date === day);
}

function complaintOf(wearer: Wearer, errors: Complaint[], what: BodyMeasurement, day: string, field: string) {
  const at = wearer.measurements?.findIndex((t) => t.what === what && t.date === day) ?? -1;
  return errors.find((e) => e.path === `measurements[${at}].${field}`);
}

interface LineProps {
  line: MeasurementLine;
  entry: Taken | undefined;
  complaint: (field: string) => Complaint | undefined;
  picture: Parameters<typeof PictureView>[0]["picture"] | undefined;
  onSet: (taken: Omit<Taken, "date">) => void;
  onForget: (index: number) => void;
  onColumn: (pasted: string[]) => void;
  onNext: () => void;
}

function Line({ line, entry, complaint, picture, onSet, onForget, onColumn, onNext }: LineProps) {
  const newest = line.taken[0];
  const { what, name, sided } = line;
  const isApart = Boolean(entry?.left ?? entry?.right ?? (!entry && newest?.left));
  const shown = (side: "value" | "left" | "right") => {
    if (side === "value") return (entry ? entry.value : newest?.figure.text) ?? "";
    return (entry ? entry[side] : newest?.[side]?.text) ?? "";
  };
  const field = (side: "value" | "left" | "right", label: string) => (
    <LengthField
      label={label}
      shown={figureOf(line, side) ?? shown(side)}
      complaint={complaint(side)}
      placeholder={side === "value" ? "" : side}
      onColumn={onColumn}
      onEnter={onNext}
      onEmpty={() => {
        onSet({
          what,
          ...(side === "value" ? {} : { left: entry?.left ?? null, right: entry?.right ?? null }),
          [side]: null,
        });
      }}
      onRead={(measure) => {
        if (side === "value") onSet({ what, value: measure });
        else {
          const other = side === "left" ? "right" : "left";
          const there = entry?.[other] ?? newest?.[other]?.measure ?? null;
          onSet({ what, [other]: there, [side]: measure });
        }
      }}
    />
  );
  const missing = line.taken.length === 0 && line.unlocks.length > 0;
  return (
    <tr className={clsx(missing && styles["missing"])}>
      <th scope="row">
        <Popover
          trigger={["hover", "focus"]}
          title={name}
          content={
            <div className={styles["taking"]}>
              {picture && <PictureView picture={picture} label={`Where the ${name} is taken`} />}
              <p>{line.how}</p>
            </div>
          }
        >
          <button type="button" className={styles["term"]}>
            {name}
          </button>
        </Popover>
        <small className="quiet">{line.how}</small>
      </th>
      <td>
        {isApart ? (
          <div className={styles["both-sides"]}>
            {field("left", `${name}, left`)}
            {field("right", `${name}, right`)}
          </div>
        ) : (
          field("value", name)
        )}
        {sided && (
          <Button
            type="link"
            size="small"
            onClick={() => {
              const figure = entry?.value ?? newest?.figure.measure ?? null;
              if (isApart) onSet({ what, value: figure ?? newest?.left?.measure ?? null });
              else if (figure) onSet({ what, left: figure, right: figure });
            }}
            disabled={!isApart && !newest}
          >
            {isApart ? "one for both" : "left and right"}
          </Button>
        )}
      </td>
      <td>
        <History line={line} onForget={onForget} />
      </td>
      <td className={styles["unlocks"]}>
        {line.unlocks.length > 0 ? (
          <>
            {missing && <strong>would unlock </strong>}
            {line.unlocks.slice(0, 3).join("; ")}
            {line.unlocks.length > 3 && ` and ${line.unlocks.length - 3} more`}
          </>
        ) : (
          <span className="quiet">nothing needs it yet</span>
        )}
      </td>
    </tr>
  );
}

/** The newest figure on the user's tape. */
function figureOf(line: MeasurementLine, side: "value" | "left" | "right"): string | undefined {
  const newest = line.taken[0];
  if (!newest) return undefined;
  return side === "value" ? newest.figure.text : newest[side]?.text;
}

const CHART = { width: 110, height: 30, edge: 4 };

/** What it was over time: a small line, and the figures behind it. */
function History({ line, onForget }: { line: MeasurementLine; onForget: (index: number) => void }) {
  const { taken } = line;
  if (taken.length === 0) return null;
  const dated = taken.filter((t) => t.date).reverse();
  const days = dated.map((t) => Date.parse(t.date ?? ""));
  const figures = dated.map((t) => t.figure.nm);
  const scale = (value: number, all: number[], size: number) => {
    const [low, high] = [Math.min(...all), Math.max(...all)];
    return high === low ? size / 2 : ((value - low) / (high - low)) * size;
  };
  const points = dated.map((_, n) => {
    const x = CHART.edge + scale(days[n] ?? 0, days, CHART.width - 2 * CHART.edge);
    const y = CHART.height - CHART.edge - scale(figures[n] ?? 0, figures, CHART.height - 2 * CHART.edge);
    return [x, y] as const;
  });
  return (
    <Popover
      trigger="click"
      title={line.name}
      content={
        <ul className={styles["history"]}>
          {taken.map((t) => (
            <li key={t.index}>
              <span className="quiet">{t.date ?? "no date"}</span>{" "}
              <strong className="figure">
                <Words>
                  {t.left && t.right ? `${bare(t.left)} left, ${t.right.text} right` : t.figure.text}
                </Words>
              </strong>
              <Button
                type="text"
                size="small"
                icon={<DeleteOutlined />}
                aria-label={`Forget the ${line.name} of ${t.date ?? "no date"}`}
                onClick={() => {
                  onForget(t.index);
                }}
              />
            </li>
          ))}
        </ul>
      }
    >
      <button
        type="button"
        className={styles["history-button"]}
        aria-label={`${line.name}: taken ${taken.length} times`}
      >
        {points.length > 1 ? (
          <svg viewBox={`0 0 ${CHART.width} ${CHART.height}`} aria-hidden>
            <polyline points={points.map((p) => p.join(",")).join(" ")} />
            {points.map(([x, y]) => (
              <circle key={x} cx={x} cy={y} r={3} />
            ))}
          </svg>
        ) : null}
        <small className="quiet">{taken[0]?.date ?? "no date"}</small>
      </button>
    </Popover>
  );
}
