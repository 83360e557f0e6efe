import { Button, InputNumber } from "antd";
import { LengthField } from "../../document/LengthField";
import { Words } from "../../drawing/Words";
import type { Editing } from "../editors";
import styles from "../changes.module.css";

/** Elastic between two slits on the inside of the band: how long the casing runs, and what to cut for it. */
export function ElasticForm({ input, shows, complaint, onChange, onRemove }: Editing<"elastic">) {
  return (
    <div className={styles["elastic"]}>
      <p className="quiet">
        For a little too much waist and no seam to take it: elastic is drawn into the back of the band,
        between two slits on its inside.
      </p>
      <div className={styles["line-settings"]}>
        <div>
          <span className={styles["label"]}>casing, from slit to slit</span>
          <LengthField
            label="Length of the casing"
            shown={shows?.casing?.text ?? input.casing ?? ""}
            complaint={complaint("casing")}
            placeholder="42 cm"
            onRead={(casing) => {
              onChange({ casing });
            }}
          />
        </div>
        {input.casing && shows && (
          <div>
            <span className={styles["label"]}>hold, stretched ÷ relaxed</span>
            <InputNumber
              aria-label="Hold in percent"
              min={shows.holds_percent[0] ?? 0}
              max={shows.holds_percent[1] ?? 0}
              suffix="%"
              value={shows.hold_percent}
              onChange={(hold) => {
                onChange({ hold_percent: hold });
              }}
            />
          </div>
        )}
        {input.casing && <Button onClick={onRemove}>No elastic</Button>}
      </div>
      {shows?.cut && (
        <div className={styles["elastic-result"]} role="status">
          <p>
            cut{" "}
            <strong className="figure">
              <Words>{shows.cut.text}</Words>
            </strong>{" "}
            of elastic, both anchors in it
          </p>
          <p className="quiet">
            <Words>{shows.sum}</Words>
          </p>
        </div>
      )}
    </div>
  );
}
