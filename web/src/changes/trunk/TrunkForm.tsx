import { Button } from "antd";
import { LengthField } from "../../document/LengthField";
import { PictureView } from "../../drawing/PictureView";
import { Words } from "../../drawing/Words";
import type { Editing } from "../editors";
import changes from "../changes.module.css";
import styles from "./trunk.module.css";

type Place = "front" | "side" | "back";

/** What is taken out across the trunk, or put in: in front, at the sides and behind. */
export function TrunkForm({ input, shows, complaint, onChange, onRemove }: Editing<"trunk">) {
  const field = (of: Place, label: string, empty: string) => (
    <div>
      <span className={changes["label"]}>{label}</span>
      <LengthField
        label={`Taken out ${label}`}
        shown={input[of] ? (shows?.[of].text ?? input[of]) : ""}
        complaint={complaint(of)}
        placeholder={empty}
        onRead={(length) => {
          onChange({ [of]: length });
        }}
        onEmpty={() => {
          onChange({ [of]: null });
        }}
      />
    </div>
  );
  const isBegun = input.front != null || input.side != null || input.back != null;
  return (
    <div className={styles["trunk"]}>
      {shows?.says && (
        <>
          <p className={styles["result"]} role="status">
            <strong>
              <Words>{shows.says}</Words>
            </strong>
          </p>
          <figure className={styles["edge"]}>
            <PictureView
              picture={shows.picture}
              label="Half of the edge laid straight, from centre front to centre back: as it is and as it will be"
            />
            <figcaption className="quiet">
              <span>centre front</span>
              <span>side · heights three times as large</span>
              <span>centre back</span>
            </figcaption>
          </figure>
        </>
      )}
      <p className="quiet">
        What is taken out across it; − puts cloth in. A wedge has a figure behind and nothing in front and at
        the sides.
      </p>
      <div className={changes["line-settings"]}>
        {field("front", "at the centre front", "as at the sides")}
        {field("side", "at the sides", "nothing")}
        {field("back", "at the centre back", "as at the sides")}
        {isBegun && <Button onClick={onRemove}>Leave it as long as it is</Button>}
      </div>
    </div>
  );
}
