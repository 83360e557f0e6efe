import { Segmented, Select } from "antd";
import type { Alteration, End, SolvedSeam } from "../api/client";
import { LengthField } from "../kept/LengthField";

interface Props {
  alteration: Alteration;
  solved: SolvedSeam | null;
  onChange: (change: Partial<Alteration>) => void;
}

type Policy = NonNullable<Alteration["sides"]> | "by_the_pins";

const POLICIES: { value: Policy; label: string }[] = [
  { value: "by_the_pins", label: "as the pins suggest" },
  { value: "mean", label: "the mean" },
  { value: "larger", label: "the larger" },
  { value: "smaller", label: "the smaller" },
  { value: "left", label: "left on both" },
  { value: "right", label: "right on both" },
  { value: "keep_each", label: "keep each" },
];

const UPPER: { value: End["end"] | "assumed"; label: string }[] = [
  { value: "assumed", label: "meets the old stitching, where it is safe" },
  { value: "meets_old_stitching", label: "meets the old stitching at" },
  { value: "straight_through", label: "straight through from" },
  { value: "runs_off", label: "runs off at the top" },
];

const LOWER: { value: End["end"] | "assumed"; label: string }[] = [
  { value: "assumed", label: "meets the old stitching, where it is safe" },
  { value: "runs_off", label: "runs off at the hem" },
  { value: "meets_old_stitching", label: "meets the old stitching at" },
  { value: "straight_through", label: "straight through up to" },
];

const stationOf = (end: End | null | undefined): string | null => {
  if (end?.end === "meets_old_stitching") return end.station;
  return end?.end === "straight_through" ? end.from : null;
};

function endOf(kind: End["end"], station: string): End {
  switch (kind) {
    case "runs_off":
      return { end: kind };
    case "meets_old_stitching":
      return { end: kind, station };
    case "straight_through":
      return { end: kind, from: station };
  }
}

/** How the pins become a line: way, tolerance, sides, ends, and what is trimmed. */
export function LineSettings({ alteration, solved, onChange }: Props) {
  const { upper, lower } = alteration;
  const last = alteration.readings?.at(-1)?.station ?? "0 cm";
  const first = alteration.readings?.at(0)?.station ?? "0 cm";
  const upperStation = stationOf(upper) ?? solved?.upper_station?.text ?? last;
  return (
    <div className="line-settings">
      <div>
        <span className="label" id="way">
          The line
        </span>
        <Segmented<NonNullable<Alteration["fairing"]>>
          aria-labelledby="way"
          options={[
            { value: "smooth", label: "smooth" },
            { value: "every_pin", label: "every pin" },
            { value: "straight", label: "straight" },
          ]}
          value={alteration.fairing ?? "smooth"}
          onChange={(fairing) => {
            onChange({ fairing });
          }}
        />
      </div>
      {(alteration.fairing ?? "smooth") === "smooth" && (
        <div>
          <span className="label">at most beside a pin</span>
          <LengthField
            label="Tolerance: how far a smooth line may pass beside a pin"
            shown={solved?.tolerance.text ?? alteration.tolerance ?? ""}
            onRead={(tolerance) => {
              onChange({ tolerance });
            }}
          />
        </div>
      )}
      <div>
        <span className="label">Left and right</span>
        <Select<Policy>
          aria-label="How left and right are made to agree"
          options={POLICIES}
          value={alteration.sides ?? "by_the_pins"}
          popupMatchSelectWidth={false}
          onChange={(policy) => {
            onChange({ sides: policy === "by_the_pins" ? null : policy });
          }}
        />
      </div>
      <div>
        <span className="label">Upper end</span>
        <Select<End["end"] | "assumed">
          aria-label="Upper end of the line"
          options={UPPER}
          value={upper?.end ?? "assumed"}
          popupMatchSelectWidth={false}
          onChange={(kind) => {
            onChange({ upper: kind === "assumed" ? null : endOf(kind, upperStation) });
          }}
        />
        {upper && upper.end !== "runs_off" && (
          <LengthField
            label="Station of the upper end"
            shown={solved?.upper_station?.text ?? stationOf(upper) ?? ""}
            onRead={(station) => {
              onChange({ upper: endOf(upper.end, station) });
            }}
          />
        )}
      </div>
      <div>
        <span className="label">Hem end</span>
        <Select<End["end"] | "assumed">
          aria-label="Hem end of the line"
          options={LOWER}
          value={lower?.end ?? "assumed"}
          popupMatchSelectWidth={false}
          onChange={(kind) => {
            const station = stationOf(lower) ?? solved?.lower_station?.text ?? first;
            onChange({ lower: kind === "assumed" ? null : endOf(kind, station) });
          }}
        />
        {lower && lower.end !== "runs_off" && (
          <LengthField
            label="Station of the hem end"
            shown={solved?.lower_station?.text ?? stationOf(lower) ?? ""}
            onRead={(station) => {
              onChange({ lower: endOf(lower.end, station) });
            }}
          />
        )}
      </div>
      <div>
        <span className="label">Allowance</span>
        <Select
          aria-label="What happens to the allowance"
          options={[
            { value: "keep", label: "keep all inside" },
            { value: "trim", label: "after the try-on, trim to" },
          ]}
          value={alteration.trim_to ? "trim" : "keep"}
          popupMatchSelectWidth={false}
          onChange={(kind) => {
            onChange({ trim_to: kind === "trim" ? (solved?.allowance.text ?? "1.5 cm") : null });
          }}
        />
        {alteration.trim_to && (
          <LengthField
            label="Trim the allowance to"
            shown={alteration.trim_to}
            onRead={(trim_to) => {
              onChange({ trim_to });
            }}
          />
        )}
      </div>
    </div>
  );
}
