import { clsx } from "clsx";
import { memo } from "react";
import { NavLink, useLocation } from "react-router";
import type { StageLine } from "../api/client";
import { STAGES } from "./stages";
import styles from "./StageTrack.module.css";

interface Props {
  garment: string;
  stages: StageLine[];
}

/** The way through a garment's stages, unrolled as far as things are settled. */
export const StageTrack = memo(function StageTrack({ garment, stages }: Props) {
  // Which try-on is open stays open from stage to stage.
  const { search } = useLocation();
  return (
    <nav className={styles["track"]} aria-label="Stages">
      <span className={styles["end"]} aria-hidden />
      {stages.map(({ stage, name, is_settled }, index) => {
        const there = STAGES[stage];
        const classes = clsx(styles["stage"], is_settled && styles["settled"]);
        return (
          there && (
            <NavLink key={stage} to={`/garments/${garment}/${there.path}${search}`} className={classes}>
              <span className={styles["number"]}>{index + 1}</span> {name}
              {is_settled && <span className="unseen"> (settled)</span>}
            </NavLink>
          )
        );
      })}
    </nav>
  );
});
