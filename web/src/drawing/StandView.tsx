import { Checkbox, Segmented } from "antd";
import { clsx } from "clsx";
import { memo, useId, useState, type KeyboardEvent } from "react";
import type { LevelResult, Stand, StandChanges } from "../api/client";
import { useWords } from "../document/useWords";
import styles from "./drawing.module.css";
import sheet from "../shell/sheet.module.css";

type View = Stand["views"][number];
export type Part = View["parts"][number];

interface Props {
  stand: Stand;
  /** What the lines of a try-on move. */
  changes: StandChanges | undefined;
  levels: LevelResult[];
  /** The part that is picked, by its key: `seam.outseam`. */
  picked: string | null;
  /** Which parts can be picked. */
  canPick: (part: Part) => boolean;
  onPick: (part: Part) => void;
}

type Shown = "both" | "front" | "back" | "side";

/** The garment on its wearer from every side, as it is and as it will be. What can be picked is a button. */
export const StandView = memo(function StandView(props: Props) {
  const { stand, levels } = props;
  const words = useWords();
  const [shown, setShown] = useState<Shown>("both");
  const [shaded, setShaded] = useState(false);
  const [whole, setWhole] = useState(false);
  const views = stand.views.filter((v) => (shown === "both" ? v.view !== "side" : v.view === shown));
  const judged = levels.filter((l) => l.comfort);
  return (
    <figure className={styles["stand"]}>
      <div className={styles["stand-tools"]}>
        <Segmented<Shown>
          size="small"
          aria-label="Seen from"
          options={[
            { value: "both", label: "both" },
            { value: "front", label: "front" },
            { value: "back", label: "back" },
            { value: "side", label: "side" },
          ]}
          value={shown}
          onChange={setShown}
        />
        <Checkbox
          checked={shaded}
          onChange={(event) => {
            setShaded(event.target.checked);
          }}
        >
          ease
        </Checkbox>
        <Checkbox
          checked={whole}
          onChange={(event) => {
            setWhole(event.target.checked);
          }}
        >
          whole figure
        </Checkbox>
      </div>
      {stand.views.length === 0 && (
        <p className={clsx("quiet", sheet["empty"])}>
          Too little is measured to draw it: give it a waist and a hem first.
        </p>
      )}
      <div className={styles["stand-views"]}>
        {views.map((view) => (
          <ViewDrawing key={view.view} {...props} view={view} shaded={shaded} whole={whole} />
        ))}
      </div>
      {shaded && judged.length > 0 && (
        <ul className={styles["stand-ease"]}>
          {judged.map((level) => (
            <li key={level.level + level.of}>
              <span
                className={clsx(styles["swatch"], styles[`shade-${level.comfort?.after ?? "usual"}`])}
                aria-hidden
              />{" "}
              {words.of("level", level.level)}
              {level.of === "garment" ? "" : `, ${words.of("level_of", level.of)}`}: {level.ease_after?.text}{" "}
              ease, {words.of("ease", level.comfort?.after ?? "usual")}
            </li>
          ))}
        </ul>
      )}
      {shaded && judged.length === 0 && (
        <p className="quiet">Ease can be judged once a girth of the wearer is measured.</p>
      )}
      <figcaption>
        <span className={clsx(styles["key"], styles["key-body"])}>
          {stand.figure_is_assumed ? "figure by proportion" : "body"}
        </span>
        <span className={clsx(styles["key"], styles["key-before"])}>as it is</span>
        <span className={clsx(styles["key"], styles["key-after"])}>after</span>
      </figcaption>
    </figure>
  );
});

interface SketchProps {
  stand: Stand;
  changes: StandChanges;
}

/** What changes move, from in front and behind, to be seen and not picked. */
export const StandSketch = memo(function StandSketch({ stand, changes }: SketchProps) {
  return (
    <div className={clsx(styles["stand-views"], styles["sketch"])}>
      {stand.views
        .filter((view) => view.view !== "side")
        .map((view) => (
          <ViewDrawing
            key={view.view}
            stand={stand}
            changes={changes}
            levels={[]}
            picked={null}
            canPick={nothing}
            onPick={nothing}
            view={view}
            shaded={false}
            whole={false}
          />
        ))}
    </div>
  );
});

const nothing = () => false;

interface ViewProps extends Props {
  view: View;
  shaded: boolean;
  whole: boolean;
}

function ViewDrawing({ view, stand, changes, levels, shaded, whole, picked, canPick, onPick }: ViewProps) {
  const words = useWords();
  const seen = changes?.views.find((v) => v.view === view.view);
  // What moves is told once where it is the same from behind.
  const isMirrored = view.view === "back" && !seen;
  const after = isMirrored ? changes?.views[0] : seen;
  const transform = after && isMirrored ? "scale(-1 1)" : undefined;
  const trunk = view.cloth.at(-1);
  const covered = useId();
  const half = stand.width_mm / 2;
  const [top = 0, bottom = stand.height_mm] = whole ? [] : stand.garment_mm;
  // As large as 12 px in a panel of two views.
  const room = stand.width_mm / 10;
  return (
    <svg
      viewBox={`${-half} ${top} ${2 * half} ${bottom - top + 1.5 * room}`}
      role="group"
      aria-label={`Seen from the ${view.view}`}
    >
      {view.body.map((path) => (
        <path
          key={path}
          className={clsx(styles["body"], stand.figure_is_assumed && styles["assumed"])}
          d={path}
        />
      ))}
      {view.cloth.map((path) => (
        <path
          key={path}
          className={clsx(styles["cloth"], styles["on-body"])}
          {...(path === trunk && after?.trunk ? { d: after.trunk, transform } : { d: path })}
          style={{ fill: stand.colour }}
        />
      ))}
      {shaded && (
        <>
          <clipPath id={covered}>
            <path d={after?.trunk ?? trunk} transform={after?.trunk ? transform : undefined} />
          </clipPath>
          <g clipPath={`url(#${covered})`}>
            {(after ?? view).shades.map(({ word, box_mm: [x, y, width, height] }, index) => (
              <rect
                key={index}
                className={clsx(styles["shade"], styles[`shade-${word}`])}
                {...{ x, y, width, height, transform }}
              />
            ))}
          </g>
        </>
      )}
      {after?.trunk && <path className={styles["before"]} d={trunk} />}
      {view.levels.map((level) => (
        <line
          key={level.level}
          className={styles["level"]}
          x1={(level.edges_mm[0] ?? 0) - 14}
          x2={(level.edges_mm[1] ?? 0) + 14}
          y1={level.y_mm}
          y2={level.y_mm}
        >
          <title>{levelTitle(levels, level.level, words)}</title>
        </line>
      ))}
      {view.parts.map((part, index) => (
        <PartDrawing
          key={`${part.name} ${part.side ?? ""} ${index}`}
          part={part}
          after={
            after?.moved.find(
              (m) => m.look === "line" && m.change === part.change && m.side === (part.side ?? m.side),
            )?.path
          }
          transform={transform}
          colour={stand.colour}
          isPicked={Boolean(part.key) && part.key === picked}
          canPick={canPick(part)}
          onPick={onPick}
        />
      ))}
      {after?.moved
        .filter((m) => m.look === "fold")
        .map(({ path }) => (
          <path key={path} className={styles["changed"]} d={path} />
        ))}
      <text className={styles["view-name"]} x={0} y={bottom + room} fontSize={room}>
        {view.view}
      </text>
    </svg>
  );
}

interface PartProps {
  part: Part;
  /** Where the stretch of it that moves will lie. */
  after: string | undefined;
  /** How that stretch is placed. */
  transform: string | undefined;
  colour: string;
  isPicked: boolean;
  canPick: boolean;
  onPick: (part: Part) => void;
}

function PartDrawing({ part, after, transform, colour, isPicked, canPick, onPick }: PartProps) {
  const { key, look } = part;
  const drawn = (
    <path className={styles[look]} d={part.path} style={look === "piece" ? { fill: colour } : {}} />
  );
  const moved = after && <path className={styles["changed"]} d={after} transform={transform} />;
  if (!key || !canPick) {
    return (
      <>
        {drawn}
        {moved}
      </>
    );
  }
  return (
    <g
      className={clsx(styles["pickable"], isPicked && styles["picked"])}
      role="button"
      tabIndex={0}
      aria-label={part.name}
      aria-pressed={isPicked}
      onClick={() => {
        onPick(part);
      }}
      onKeyDown={(event: KeyboardEvent) => {
        if (event.key === "Enter" || event.key === " ") {
          event.preventDefault();
          onPick(part);
        }
      }}
    >
      <title>{part.name}</title>
      <path className={styles["grip"]} d={part.path} />
      {drawn}
      {moved}
    </g>
  );
}

function levelTitle(levels: LevelResult[], level: string, words: ReturnType<typeof useWords>): string {
  const found = levels.find((l) => l.level === level);
  if (!found) return words.of("level", level);
  const ease = found.ease_after ? `, ease ${found.ease_after.text}` : "";
  const word = found.comfort ? ` (${words.of("ease", found.comfort.after)})` : "";
  return `${words.of("level", found.level)}: ${found.after.text} round${ease}${word}`;
}
