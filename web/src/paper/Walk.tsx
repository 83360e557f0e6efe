import { Select, Slider } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import type { JoinShown } from "../api/client";
import styles from "./paper.module.css";

interface Props {
  joins: JoinShown[];
  picked: number | null;
  onPick: (join: number | null) => void;
}

/** Walking a seam: one edge rolled along the other from the same end; notches meet, and what is left over shows at the end. */
export function Walk({ joins, picked, onPick }: Props) {
  const [share, setShare] = useState(100);
  const join = picked === null ? undefined : joins[picked];
  const [one, other] = join?.walked ?? [];
  return (
    <div className={styles["walk"]} role="group" aria-label="Walk a seam">
      <div className={styles["editor-tools"]}>
        <span>Walk a seam</span>
        <Select
          aria-label="Which seam is walked"
          placeholder="which one?"
          allowClear
          popupMatchSelectWidth={false}
          value={picked}
          options={joins.map((j, n) => ({
            value: n,
            label: `${j.is_true ? "✓" : "⚠"} ${j.name}${j.walked[0] ? `, ${j.walked[0].piece}` : ""}: ${j.says}`,
          }))}
          onChange={(n: number | undefined) => {
            onPick(n ?? null);
          }}
        />
      </div>
      {join && !one && (
        <p className="quiet">
          {join.name}: {join.says}. Several edges lie on one side of it.
        </p>
      )}
      {join && one && other && (
        <>
          <svg
            viewBox={`-6 -26 ${Math.max(one.long_mm, other.long_mm) + 12} 52`}
            className={styles["rolled"]}
            role="img"
            aria-label={`${one.piece} and ${other.piece}: ${join.says}`}
          >
            {[one, other].map((edge, n) => {
              const y = n === 0 ? -5 : 5;
              const upTo = n === 0 ? edge.long_mm : (edge.long_mm * share) / 100;
              return (
                <g key={n}>
                  <line
                    className={clsx(styles["edge"], n === 1 && styles["rolls"])}
                    x1={0}
                    y1={y}
                    x2={upTo}
                    y2={y}
                  />
                  {edge.notches_mm
                    .filter((at) => at <= upTo)
                    .map((at) => (
                      <line key={at} className={styles["notch"]} x1={at} y1={y} x2={at} y2={y * 3.4} />
                    ))}
                </g>
              );
            })}
          </svg>
          <Slider
            aria-label="How far it is rolled"
            value={share}
            onChange={setShare}
            tooltip={{ formatter: (v) => `${v ?? 0} %` }}
          />
          <p>
            {one.piece} above, {other.piece} below: {join.says}.
          </p>
        </>
      )}
    </div>
  );
}
