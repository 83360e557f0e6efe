import { Popover } from "antd";
import { clsx } from "clsx";
import { memo } from "react";
import type { LevelResult } from "../api/client";
import { useWords } from "../document/useWords";
import { Words } from "./Words";
import { bare } from "./words";
import styles from "./drawing.module.css";

/** Ease drawn, in cm either side of the body: from a little under it to well past loose. */
const FROM = -4;
const TO = 18;
const WIDTH = 200;

const across = (nm: number) => ((Math.min(Math.max(nm / 1e7, FROM), TO) - FROM) / (TO - FROM)) * WIDTH;

/** Level by level: body, garment now, garment after, and the band that is comfortable. */
export const EaseLadder = memo(function EaseLadder({ levels }: { levels: LevelResult[] }) {
  const words = useWords();
  const of = (level: LevelResult) => words.of("level_of", level.of);
  const nameOf = (level: LevelResult) => words.of("level", level.level);
  return (
    <table className={styles["ladder"]}>
      <caption className="unseen">Girth and ease at each level, now and after</caption>
      <tbody>
        {levels.map((level) => (
          <tr key={level.level + level.of}>
            <th scope="row">
              {nameOf(level)}
              <br />
              <small className="quiet">{of(level)}</small>
            </th>
            <td className={styles["ladder-bar"]}>
              <Rung level={level} />
            </td>
            <td className={styles["ladder-figures"]}>
              <Popover
                trigger={["hover", "focus"]}
                title={`${nameOf(level)}, ${of(level)}`}
                content={<Sum level={level} />}
              >
                <button
                  type="button"
                  data-level={level.level}
                  aria-label={described(level, `${nameOf(level)}, ${of(level)}`)}
                >
                  <strong className={clsx("figure", !level.is_changed && styles["same"])}>
                    <Words>{level.after.text}</Words>
                  </strong>
                  {level.is_changed && (
                    <>
                      <br />
                      <small className="quiet figure">
                        now <Words>{level.before.text}</Words>
                      </small>
                    </>
                  )}
                </button>
              </Popover>
            </td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={3} className="quiet">
            <span className={clsx(styles["key"], styles["key-body"])}>body</span>{" "}
            <span className={clsx(styles["key"], styles["key-comfort"])}>comfortable ease</span>
          </td>
        </tr>
      </tfoot>
    </table>
  );
});

function Rung({ level }: { level: LevelResult }) {
  const words = useWords();
  const { ease_before: before, ease_after: after, comfort } = level;
  if (!before || !after) {
    return (
      <small className="quiet">{level.assumed ? "assumed, not measured" : "no ease is taught here"}</small>
    );
  }
  return (
    <>
      <svg viewBox={`0 0 ${WIDTH} 34`} preserveAspectRatio="none" aria-hidden>
        <rect className={styles["ladder-body"]} x={0} y={4} width={across(0)} height={26} />
        {comfort && (
          <rect
            className={styles["ladder-comfort"]}
            x={across(comfort.least.nm)}
            y={9}
            width={across(comfort.usual_to.nm) - across(comfort.least.nm)}
            height={16}
          />
        )}
        <line className={styles["ladder-now"]} x1={across(before.nm)} x2={across(before.nm)} y1={3} y2={31} />
        {level.is_changed && (
          <line
            className={styles["ladder-after"]}
            x1={across(after.nm)}
            x2={across(after.nm)}
            y1={3}
            y2={31}
          />
        )}
      </svg>
      <small className={styles["ladder-word"]}>
        <span className="figure">
          <Words>{after.text}</Words>
        </span>{" "}
        ease
        {comfort && (
          <span className={styles[`word-${comfort.after}`]}>, {words.of("ease", comfort.after)}</span>
        )}
      </small>
    </>
  );
}

function Sum({ level }: { level: LevelResult }) {
  return (
    <div>
      <p>
        <Words>{level.sum}</Words>
      </p>
      {level.body && level.ease_after && (
        <p>
          <Words>{`${bare(level.after)} − ${bare(level.body)} body = ${level.ease_after.text} ease altogether`}</Words>
        </p>
      )}
      {level.comfort && (
        <p className="quiet">
          Least {level.comfort.least.text}, usual {bare(level.comfort.usual_from)} to{" "}
          {level.comfort.usual_to.text}: teaching values.
        </p>
      )}
    </div>
  );
}

function described(level: LevelResult, name: string): string {
  const ease = level.ease_after ? `, ease ${level.ease_after.text}` : "";
  return `${name}: ${level.after.text} after, ${level.before.text} now${ease}. ${level.sum}`;
}
