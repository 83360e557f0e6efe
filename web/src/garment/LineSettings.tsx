import { InputNumber, Segmented, Select } from "antd";
import type { Alteration, Complaint, End, Garment, Seam, SolvedSeam } from "../api/client";
import { spoken } from "../drawing/words";
import { LengthField } from "../kept/LengthField";

interface Props {
  garment: Garment;
  alteration: Alteration;
  complaint: (field: string) => Complaint | undefined;
  solved: SolvedSeam | null;
  onChange: (change: Partial<Alteration>) => void;
}

export type Policy = NonNullable<Alteration["sides"]> | "by_the_pins";

export const POLICIES: { value: Policy; label: string }[] = [
  { value: "by_the_pins", label: "as the pins suggest" },
  { value: "mean", label: "the mean" },
  { value: "larger", label: "the larger" },
  { value: "smaller", label: "the smaller" },
  { value: "left", label: "left on both" },
  { value: "right", label: "right on both" },
  { value: "keep_each", label: "keep each" },
];

type EndOption = { value: End["end"] | "assumed"; label: string };

/** What an end of the line can be; first what the pins suggest, in words as long as it is assumed. */
function endsOf(assumed: string | undefined, edge: string, through: string): EndOption[] {
  return [
    { value: "assumed", label: assumed ? `assumed: ${assumed}` : "as the pins suggest" },
    { value: "meets_old_stitching", label: "meets the old stitching at" },
    { value: "straight_through", label: `straight through ${through}` },
    { value: "runs_off", label: `runs off at the ${edge}` },
  ];
}

const stationOf = (end: End | null | undefined): string | null => {
  if (end?.end === "meets_old_stitching") return end.station;
  return end?.end === "straight_through" ? end.from : null;
};

function endOf(kind: End["end"], station: string, into: Seam): End {
  switch (kind) {
    case "runs_off":
      return { end: kind };
    case "carries_on":
      return { end: kind, into };
    case "meets_old_stitching":
      return { end: kind, station };
    case "straight_through":
      return { end: kind, from: station };
  }
}

/** How the pins become a line: way, tolerance, sides, ends, and what is trimmed. */
export function LineSettings({ garment, alteration, complaint, solved, onChange }: Props) {
  const into = solved?.goes_on_into;
  const uppers = endsOf(solved?.upper_is_assumed ? solved.ends[1] : undefined, solved?.top ?? "top", "from");
  if (into) uppers.push({ value: "carries_on", label: `carries on into the ${spoken(into)}` });
  const lowers = endsOf(
    solved?.lower_is_assumed ? solved.ends[0] : undefined,
    solved?.datum ?? "hem",
    "up to",
  );
  const { upper, lower } = alteration;
  const stations = (solved?.pins ?? []).map((pin) => pin.station).sort((a, b) => a.nm - b.nm);
  const last = stations.at(-1)?.text ?? "0 cm";
  const first = stations[0]?.text ?? "0 cm";
  /** Where an end lies that somebody chooses: straight through begins at the outermost pin, anything else stays where it is. */
  const chosen = (kind: End["end"], end: End | null | undefined, assumed: string | undefined, pin: string) =>
    kind === "straight_through" ? pin : (stationOf(end) ?? assumed ?? pin);
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
          options={uppers}
          value={upper?.end ?? "assumed"}
          popupMatchSelectWidth={false}
          onChange={(kind) => {
            if (kind === "assumed") {
              onChange({ upper: null });
              return;
            }
            const station = chosen(kind, upper, solved?.upper_station?.text, last);
            onChange({ upper: endOf(kind, station, into ?? alteration.seam) });
          }}
        />
        {(upper?.end === "meets_old_stitching" || upper?.end === "straight_through") && (
          <LengthField
            label="Station of the upper end"
            shown={solved?.upper_station?.text ?? stationOf(upper) ?? ""}
            onRead={(station) => {
              onChange({ upper: endOf(upper.end, station, alteration.seam) });
            }}
          />
        )}
      </div>
      <div>
        <span className="label">Lower end</span>
        <Select<End["end"] | "assumed">
          aria-label="Lower end of the line"
          options={lowers}
          value={lower?.end ?? "assumed"}
          popupMatchSelectWidth={false}
          onChange={(kind) => {
            if (kind === "assumed") {
              onChange({ lower: null });
              return;
            }
            const station = chosen(kind, lower, solved?.lower_station?.text, first);
            onChange({ lower: endOf(kind, station, alteration.seam) });
          }}
        />
        {(lower?.end === "meets_old_stitching" || lower?.end === "straight_through") && (
          <LengthField
            label="Station of the lower end"
            shown={solved?.lower_station?.text ?? stationOf(lower) ?? ""}
            onRead={(station) => {
              onChange({ lower: endOf(lower.end, station, alteration.seam) });
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
      <Spread garment={garment} alteration={alteration} complaint={complaint} onChange={onChange} />
    </div>
  );
}

/** Other seams that take a share of what is pinned here; this one keeps the rest. */
function Spread({ garment, alteration, complaint, onChange }: Omit<Props, "solved">) {
  const spread = alteration.spread ?? [];
  const rest = 100 - spread.reduce((sum, s) => sum + s.percent, 0);
  const nameOf = (seam: Seam) => garment.seams.find((s) => s.seam === seam)?.name ?? spoken(seam);
  const free = garment.seams.filter(
    (s) => s.seam !== alteration.seam && spread.every((o) => o.seam !== s.seam),
  );
  const wrong =
    complaint("spread") ?? spread.map((_, i) => complaint(`spread[${i}]`)).find((c) => c !== undefined);
  return (
    <div className="spread">
      <span className="label">Spread over</span>
      {spread.map((share, index) => (
        <span key={share.seam} className="share">
          <InputNumber
            aria-label={`Share of the ${nameOf(share.seam)} in percent`}
            min={0}
            max={100}
            suffix="%"
            value={share.percent}
            onChange={(percent) => {
              const changed = spread.map((s, i) => (i === index ? { ...s, percent: percent ?? 0 } : s));
              onChange({ spread: changed.filter((s) => s.percent > 0) });
            }}
          />{" "}
          {nameOf(share.seam)}
        </span>
      ))}
      <Select<Seam | null>
        aria-label="Give a share to another seam"
        placeholder="another seam"
        value={null}
        options={free.map((s) => ({ value: s.seam, label: s.name ?? spoken(s.seam) }))}
        popupMatchSelectWidth={false}
        onChange={(seam) => {
          // Equal shares to begin with: half, a third, a quarter.
          const percent = Math.floor(100 / (spread.length + 2));
          if (seam) onChange({ spread: [...spread.map((s) => ({ ...s, percent })), { seam, percent }] });
        }}
      />
      {spread.length > 0 && <span className="quiet">{rest} % stay here</span>}
      {wrong && (
        <p className="field-trouble" role="alert">
          {wrong.found}. Expected {wrong.expected}.
        </p>
      )}
    </div>
  );
}
