import { memo, type KeyboardEvent } from "react";
import type { LevelResult, Seam, Stand } from "../api/client";
import "./drawing.css";

type View = Stand["views"][number];

/** The garment's own lines in one view: cloth, seams, and what changes. */
export function Garment({ view, colour, after = false }: { view: View; colour: string; after?: boolean }) {
  const changed = view.outline_after ?? null;
  return (
    <>
      <path className="cloth" d={after ? (changed ?? view.outline) : view.outline} style={{ fill: colour }} />
      {view.parts.map((part) => (
        <path
          key={part.name + part.path}
          className="seam"
          d={after ? (part.after ?? part.path) : part.path}
        />
      ))}
    </>
  );
}

interface Props {
  stand: Stand;
  levels: LevelResult[];
  picked: Seam | null;
  onPick: (seam: Seam) => void;
}

const WORDS = {
  too_tight: "too tight",
  close: "close",
  usual: "usual",
  roomy: "roomy",
  loose: "loose",
} as const;

/** The garment on its wearer, front and back, as it is and as it will be. Seams can be picked. */
export const StandView = memo(function StandView({ stand, levels, picked, onPick }: Props) {
  const half = stand.width_mm / 2 + 24;
  return (
    <figure className="stand">
      <div className="stand-views">
        {stand.views.map((view) => (
          <svg
            key={view.view}
            viewBox={`${-half} -24 ${2 * half} ${stand.height_mm + 90}`}
            role="group"
            aria-label={`Seen from the ${view.view}`}
          >
            <path
              className="cloth on-body"
              d={view.outline_after ?? view.outline}
              style={{ fill: stand.colour }}
            />
            {view.body && <path className="body" d={view.body} />}
            {view.outline_after && <path className="before" d={view.outline} />}
            {view.levels.map((level) => (
              <line
                key={level.level}
                className="level"
                x1={-level.edge_mm - 12}
                x2={level.edge_mm + 12}
                y1={level.y_mm}
                y2={level.y_mm}
              >
                <title>{levelTitle(levels, level.level)}</title>
              </line>
            ))}
            {view.parts.map((part) => {
              const { seam } = part;
              const after = part.after ? <path className="changed" d={part.after} /> : null;
              if (!seam) return <path key={part.name + part.path} className="seam" d={part.path} />;
              const pick = (event: KeyboardEvent) => {
                if (event.key === "Enter" || event.key === " ") {
                  event.preventDefault();
                  onPick(seam);
                }
              };
              return (
                <g
                  key={part.name}
                  className={picked === seam ? "pickable picked" : "pickable"}
                  role="button"
                  tabIndex={0}
                  aria-label={part.name}
                  aria-pressed={picked === seam}
                  onClick={() => {
                    onPick(seam);
                  }}
                  onKeyDown={pick}
                >
                  <title>{part.name}</title>
                  <path className="grip" d={part.path} />
                  <path className="seam" d={part.path} />
                  {after}
                </g>
              );
            })}
            <text className="view-name" x={0} y={stand.height_mm + 52}>
              {view.view}
            </text>
          </svg>
        ))}
      </div>
      <figcaption>
        <span className="key key-body">body</span>
        <span className="key key-before">as it is</span>
        <span className="key key-after">after</span>
      </figcaption>
    </figure>
  );
});

function levelTitle(levels: LevelResult[], level: string): string {
  const found = levels.find((l) => l.level === level);
  if (!found) return level;
  const ease = found.ease_after ? `, ease ${found.ease_after.text}` : "";
  const word = found.comfort ? ` (${WORDS[found.comfort.after]})` : "";
  return `${level}: ${found.after.text} round${ease}${word}`;
}
