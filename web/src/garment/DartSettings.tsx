import { Select } from "antd";
import type { Complaint, DartPins, SolvedSeam } from "../api/client";
import { LengthField } from "../kept/LengthField";
import { POLICIES, type Policy } from "./LineSettings";

interface Props {
  pins: DartPins;
  solved: SolvedSeam | null;
  isNew: boolean;
  complaint: (field: string) => Complaint | undefined;
  onChange: (change: Partial<DartPins>) => void;
}

/** How left and right agree, and where a new pair lies. */
export function DartSettings({ pins, solved, isNew, complaint, onChange }: Props) {
  const place = [
    { field: "point" as const, label: "point above the hem", of: "Height of the point above the hem" },
    {
      field: "base" as const,
      label: pins.dart.endsWith("fish_eye") ? "lower point above the hem" : "other end above the hem",
      of: "Height of the other end above the hem",
    },
    { field: "from_side_seam" as const, label: "from the side seam", of: "Distance from the side seam" },
  ];
  return (
    <div className="line-settings">
      <div>
        <span className="label">Left and right</span>
        <Select<Policy>
          aria-label="How left and right are made to agree"
          options={POLICIES}
          value={pins.sides ?? "by_the_pins"}
          popupMatchSelectWidth={false}
          onChange={(policy) => {
            onChange({ sides: policy === "by_the_pins" ? null : policy });
          }}
        />
      </div>
      {isNew &&
        place.map(({ field, label, of }) => (
          <div key={field}>
            <span className="label">{label}</span>
            <LengthField
              label={of}
              shown={pins[field] ?? ""}
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
      {solved?.place && <p className="quiet dart-place">{solved.place}</p>}
    </div>
  );
}
