import { clsx } from "clsx";
import { LengthField } from "../../document/LengthField";
import type { Editing } from "../editors";
import { SidesSetting } from "../SidesSetting";
import styles from "../changes.module.css";

const PLACE = [
  { field: "point", label: "point above the hem", of: "Height of the point above the hem" },
  { field: "base", label: null, of: "Height of the other end above the hem" },
  { field: "from_side_seam", label: "from the side seam", of: "Distance from the side seam" },
] as const;

/** How left and right agree, and where a new pair lies. */
export function DartSettings({ input, shows, complaint, onChange }: Editing<"dart">) {
  return (
    <div className={styles["line-settings"]}>
      <SidesSetting
        sides={input.sides ?? null}
        onChange={(sides) => {
          onChange({ sides });
        }}
      />
      {shows?.is_new &&
        PLACE.map(({ field, label, of }) => (
          <div key={field}>
            <span className={styles["label"]}>{label ?? `${shows.top} above the hem`}</span>
            <LengthField
              label={of}
              shown={input[field] ?? ""}
              placeholder={field === "from_side_seam" ? "" : "assumed"}
              complaint={complaint(field)}
              onRead={(length) => {
                onChange({ [field]: length });
              }}
              onEmpty={() => {
                onChange({ [field]: null });
              }}
            />
          </div>
        ))}
      {shows?.place && <p className={clsx("quiet", styles["dart-place"])}>{shows.place}</p>}
    </div>
  );
}
