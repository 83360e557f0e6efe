import { InputNumber, Segmented, Select } from "antd";
import type { End, Fairing, Figure, Seam, SolvedLine } from "../../api/client";
import { LengthField } from "../../document/LengthField";
import { useWords } from "../../document/useWords";
import type { Editing } from "../editors";
import { SidesSetting } from "../SidesSetting";
import styles from "../changes.module.css";

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

function endOf(kind: End["end"], station: string, into: Seam | null): End | null {
  switch (kind) {
    case "runs_off":
      return { end: kind };
    case "carries_on":
      return into && { end: kind, into };
    case "meets_old_stitching":
      return { end: kind, station };
    case "straight_through":
      return { end: kind, from: station };
  }
}

interface EndProps {
  /** Which end, in a word. */
  which: "Upper" | "Lower";
  end: End | null;
  /** Where it lies, by the core. */
  station: Figure | null;
  /** The outermost pin on its side: straight through begins there. */
  pin: string | null;
  into: Seam | null;
  options: EndOption[];
  onChange: (end: End | null) => void;
}

/** One end of the line: what it is, and where. */
function EndSetting({ which, end, station, pin, into, options, onChange }: EndProps) {
  const there = stationOf(end);
  return (
    <div>
      <span className={styles["label"]}>{which} end</span>
      <Select<End["end"] | "assumed">
        aria-label={`${which} end of the line`}
        options={options}
        value={end?.end ?? "assumed"}
        popupMatchSelectWidth={false}
        onChange={(kind) => {
          // Straight through begins at the outermost pin, exactly there; anything else stays where it is.
          const at = kind === "straight_through" ? pin : (there ?? station?.measure ?? pin);
          onChange(kind === "assumed" ? null : endOf(kind, at ?? station?.measure ?? "0 cm", into));
        }}
      />
      {end && there !== null && (
        <LengthField
          label={`Station of the ${which.toLowerCase()} end`}
          shown={station?.text ?? there}
          onRead={(station) => {
            onChange(endOf(end.end, station, into));
          }}
        />
      )}
    </div>
  );
}

/** The stations of the outermost pins, exactly. */
function outermost(shows: SolvedLine | null): [string | null, string | null] {
  const stations = (shows?.pins ?? []).map((pin) => pin.station).sort((a, b) => a.nm - b.nm);
  return [stations[0]?.measure ?? null, stations.at(-1)?.measure ?? null];
}

/** How the pins become a line: way, tolerance, sides, ends, and what is trimmed. */
export function LineSettings({ garment, input, shows, complaint, onChange, ...rest }: Editing<"seam">) {
  const words = useWords();
  const into = shows?.goes_on_into;
  const uppers = endsOf(shows?.upper_is_assumed ? shows.ends[1] : undefined, shows?.top ?? "top", "from");
  if (into) uppers.push({ value: "carries_on", label: `carries on into the ${into.name}` });
  const lowers = endsOf(shows?.lower_is_assumed ? shows.ends[0] : undefined, shows?.datum ?? "hem", "up to");
  const [first, last] = outermost(shows);
  const ends = { into: into?.seam ?? null };
  return (
    <div className={styles["line-settings"]}>
      <div>
        <span className={styles["label"]} id="way">
          The line
        </span>
        <Segmented<Fairing>
          aria-labelledby="way"
          options={words.options<Fairing>("fairing")}
          value={input.fairing ?? "smooth"}
          onChange={(fairing) => {
            onChange({ fairing });
          }}
        />
      </div>
      {(input.fairing ?? "smooth") === "smooth" && (
        <div>
          <span className={styles["label"]}>at most beside a pin</span>
          <LengthField
            label="Tolerance: how far a smooth line may pass beside a pin"
            shown={shows?.tolerance.text ?? input.tolerance ?? ""}
            onRead={(tolerance) => {
              onChange({ tolerance });
            }}
          />
        </div>
      )}
      {(shows?.has_sides ?? true) && (
        <SidesSetting
          sides={input.sides ?? null}
          onChange={(sides) => {
            onChange({ sides });
          }}
        />
      )}
      <EndSetting
        {...ends}
        which="Upper"
        end={input.upper ?? null}
        station={shows?.upper_station ?? null}
        pin={last}
        options={uppers}
        onChange={(upper) => {
          onChange({ upper });
        }}
      />
      <EndSetting
        {...ends}
        which="Lower"
        end={input.lower ?? null}
        station={shows?.lower_station ?? null}
        pin={first}
        options={lowers}
        onChange={(lower) => {
          onChange({ lower });
        }}
      />
      <div>
        <span className={styles["label"]}>Allowance</span>
        <Select
          aria-label="What happens to the allowance"
          options={[
            { value: "keep", label: "keep all inside" },
            { value: "trim", label: "after the try-on, trim to" },
            { value: "panel", label: "leave it, and set in a panel" },
          ]}
          value={input.set_in ? "panel" : input.trim_to ? "trim" : "keep"}
          popupMatchSelectWidth={false}
          onChange={(kind) => {
            onChange({
              trim_to: kind === "trim" ? (shows?.allowance.measure ?? null) : null,
              set_in: kind === "panel",
            });
          }}
        />
        {input.trim_to && (
          <LengthField
            label="Trim the allowance to"
            shown={input.trim_to}
            onRead={(trim_to) => {
              onChange({ trim_to });
            }}
          />
        )}
      </div>
      <Spread
        {...rest}
        garment={garment}
        input={input}
        shows={shows}
        complaint={complaint}
        onChange={onChange}
      />
    </div>
  );
}

/** Other seams that take a share of what is pinned here; this one keeps the rest. */
function Spread({ garment, input, shows, complaint, onChange }: Editing<"seam">) {
  const words = useWords();
  const spread = input.spread ?? [];
  const nameOf = (seam: Seam) => garment.seams.find((s) => s.seam === seam)?.name ?? words.of("seam", seam);
  const free = garment.seams.filter((s) => s.seam !== input.seam && spread.every((o) => o.seam !== s.seam));
  const wrong =
    complaint("spread") ?? spread.map((_, i) => complaint(`spread[${i}]`)).find((c) => c !== undefined);
  return (
    <div className={styles["spread"]}>
      <span className={styles["label"]}>Spread over</span>
      {spread.map((share, index) => (
        <span key={share.seam} className={styles["share"]}>
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
        options={free.map((s) => ({ value: s.seam, label: nameOf(s.seam) }))}
        popupMatchSelectWidth={false}
        onChange={(seam) => {
          // Equal shares to begin with: half, a third, a quarter.
          const percent = Math.floor(100 / (spread.length + 2));
          if (seam) onChange({ spread: [...spread.map((s) => ({ ...s, percent })), { seam, percent }] });
        }}
      />
      {spread.length > 0 && shows && <span className="quiet">{shows.keeps_percent} % stay here</span>}
      {wrong && (
        <p className="field-trouble" role="alert">
          {wrong.found}. Expected {wrong.expected}.
        </p>
      )}
    </div>
  );
}
