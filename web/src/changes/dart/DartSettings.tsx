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

/** How left and right agree, and where the pair lies: a new one is put there, one that is there can be moved. */
export function DartSettings({ input, shows, complaint, onChange }: Editing<"dart">) {
  // What lies across has no height to be put at.
  const asked = PLACE.filter(({ field }) => (field === "from_side_seam" ? shows?.is_new : shows?.place));
  const usual = shows?.is_new ? "assumed" : "as it is";
  return (
    <div className={styles["line-settings"]}>
      <SidesSetting
        sides={input.sides ?? null}
        onChange={(sides) => {
          onChange({ sides });
        }}
      />
      {asked.map(({ field, label, of }) => (
        <div key={field}>
          <span className={styles["label"]}>{label ?? `${shows?.top ?? "other end"} above the hem`}</span>
          <LengthField
            label={of}
            shown={input[field] ?? ""}
            placeholder={field === "from_side_seam" ? "" : usual}
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
