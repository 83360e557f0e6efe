import { Tooltip } from "antd";
import { memo } from "react";
import { NavLink, useLocation } from "react-router";
import "./tape.css";

export const STAGES = [
  { key: "look-over", name: "Look over" },
  { key: "try-on", name: "Try on" },
  { key: "lines", name: "Lines" },
  { key: "plan", name: "Plan" },
  { key: "sew", name: "Sew" },
  { key: "record", name: "Record" },
] as const;

export type StageKey = (typeof STAGES)[number]["key"];
const OPEN: readonly StageKey[] = ["look-over", "try-on", "lines"];

interface Props {
  garment: string;
  /** Something of it is measured. */
  isLookedOver: boolean;
  /** Something is pinned, so there is a card. */
  hasCards: boolean;
  /** And nothing stops it. */
  isClear: boolean;
}

/** The way through a garment's stages: a tape measure, unrolled as far as things are settled. */
export const StageTape = memo(function StageTape({ garment, isLookedOver, hasCards, isClear }: Props) {
  // Which try-on is open stays open from stage to stage.
  const { search } = useLocation();
  const settled: StageKey[] = [];
  if (isLookedOver) settled.push("look-over");
  if (hasCards) settled.push("try-on");
  if (isClear) settled.push("lines");
  return (
    <nav className="tape" aria-label="Stages">
      <span className="tape-end" aria-hidden />
      {STAGES.map((stage, index) =>
        OPEN.includes(stage.key) ? (
          <NavLink
            key={stage.key}
            to={`/garments/${garment}/${stage.key}${search}`}
            className={settled.includes(stage.key) ? "tape-stage settled" : "tape-stage"}
          >
            <span className="tape-number">{index + 1}</span> {stage.name}
            {settled.includes(stage.key) && <span className="unseen"> (settled)</span>}
          </NavLink>
        ) : (
          <Tooltip key={stage.key} title="Not in this version of Vemble yet">
            <span className="tape-stage later" aria-disabled>
              <span className="tape-number">{index + 1}</span> {stage.name}
            </span>
          </Tooltip>
        ),
      )}
    </nav>
  );
});
