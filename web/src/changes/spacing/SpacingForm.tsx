import { Button, Checkbox, InputNumber, Select } from "antd";
import { clsx } from "clsx";
import { LengthField } from "../../document/LengthField";
import { useWords } from "../../document/useWords";
import { Words } from "../../drawing/Words";
import type { Editing } from "../editors";
import { SpacedEdge } from "./SpacedEdge";
import changes from "../changes.module.css";
import drawing from "../../drawing/drawing.module.css";
import styles from "./spacing.module.css";

type How = NonNullable<Editing<"spacing">["input"]["how"]>;
type Field = "edge" | "first" | "last" | "apart" | "line";

/** Fastenings along an opening: how long its edge is, how they are spaced, and where each comes to stand. */
export function SpacingForm({ input, shows, complaint, onChange, onRemove }: Editing<"spacing">) {
  const words = useWords();
  const comes = shows?.comes;
  const how = input.how ?? "evenly";
  const field = (of: Field, label: string, placeholder: string) => (
    <div>
      <span className={changes["label"]}>{label}</span>
      <LengthField
        label={label}
        shown={shows?.[of]?.text ?? input[of] ?? ""}
        complaint={complaint(of)}
        placeholder={placeholder}
        onRead={(length) => {
          onChange({ [of]: length });
        }}
        onEmpty={() => {
          onChange({ [of]: null });
        }}
      />
    </div>
  );
  return (
    <div className={styles["spacing"]}>
      {comes && (
        <>
          {comes.apart && (
            <p className={styles["result"]} role="status">
              <strong className="figure">
                <Words>{comes.apart}</Words>
              </strong>
            </p>
          )}
          <p className="quiet">
            <Words>{comes.sum}</Words>
          </p>
          <SpacedEdge edge={comes} name={`The edge laid flat, its top on the left: ${comes.apart}`} />
          <p className={styles["legend"]}>
            <span className={clsx(drawing["key"], drawing["key-before"])}>now</span>
            <span className={clsx(drawing["key"], drawing["key-after"])}>anew</span>
            {comes.line_mm != null && <span className={styles["key-line"]}>line of the body</span>}
          </p>
          <ol className={styles["places"]} aria-label="From the top, on both edges">
            {comes.places.map((place) => (
              <li key={place.nm} className="figure">
                <Words>{place.text}</Words>
              </li>
            ))}
          </ol>
          {comes.places.length > 0 && (
            <p className="quiet">down from the top of the opening, on both edges alike</p>
          )}
        </>
      )}
      <div className={changes["line-settings"]}>
        {field("edge", "edge, top to lower end", "70 cm")}
        <Checkbox
          checked={shows?.to_hem ?? input.to_hem ?? false}
          disabled={!input.edge}
          onChange={({ target }) => {
            onChange({ to_hem: target.checked });
          }}
        >
          ends in the hem, and is shortened with it
        </Checkbox>
      </div>
      <div className={changes["line-settings"]}>
        <div>
          <span className={changes["label"]}>spaced</span>
          <Select<How>
            aria-label="How they are spaced"
            options={words.options<How>("spaced")}
            value={how}
            popupMatchSelectWidth={false}
            onChange={(next) => {
              onChange({ how: next });
            }}
          />
        </div>
        {field("first", "first, below the top", "as usual")}
        {field("last", "last, above the lower end", "as usual")}
        {how !== "kept" && (
          <>
            <div>
              <span className={changes["label"]}>how many</span>
              <InputNumber
                aria-label="How many on each edge"
                min={1}
                max={60}
                placeholder="as now"
                value={input.count ?? null}
                onChange={(count) => {
                  onChange({ count });
                }}
              />
            </div>
            {field("apart", "or about so far apart", "any")}
          </>
        )}
        {(how === "on_the_line" || how === "straddling") &&
          field("line", "line of the body, below the top", "by its levels")}
        {input.edge && <Button onClick={onRemove}>Leave them as they are</Button>}
      </div>
    </div>
  );
}
