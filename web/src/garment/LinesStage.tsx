import { PrinterOutlined } from "@ant-design/icons";
import { Button, Segmented } from "antd";
import { memo, useDeferredValue, useState } from "react";
import { Link } from "react-router";
import type { Alteration, Complaint, End, Problem, Reading, Seam, Solved, Tape, TryOn } from "../api/client";
import { SeamStrip } from "../drawing/SeamStrip";
import { UndoTools } from "../kept/UndoTools";
import { useSettings } from "../settings";
import { spoken } from "../drawing/words";
import { Checks } from "./Checks";
import { LineSettings } from "./LineSettings";
import { PinTable } from "./PinTable";

interface Props {
  garment: string;
  tryOn: TryOn;
  solved: Solved | null;
  problem: Problem | null;
  seam: Seam;
  canUndo: boolean;
  canRedo: boolean;
  onUndo: () => void;
  onRedo: () => void;
  /** A change that is kept. */
  onChange: (tryOn: TryOn) => void;
  /** A change while something is dragged: shown, not kept. */
  onPreview: (tryOn: TryOn) => void;
}

/** A whole number of tape marks as a document holds it, in the unit of the tape. */
function onTape(nm: number, tape: Tape): string {
  return tape.startsWith("in") ? `${Math.round(nm / 1_587_500)}/16 in` : `${nm / 1e7} cm`;
}

/** From pins to stitching lines: the strip and the pins side by side, the ease ladder, the checks. */
export function LinesStage(props: Props) {
  const { tryOn, solved, problem, seam, onChange, onPreview } = props;
  const { tape } = useSettings();
  const [picked, setPicked] = useState<number | null>(null);
  const [stretched, setStretched] = useState(true);
  const { alteration, changed } = alterationOf(tryOn, seam);
  const readings = alteration.readings ?? [];
  const result = solved?.try_ons[0];
  const solvedSeam = result?.seams.find((s) => s.seam === seam) ?? null;
  const others = problem?.errors?.filter((e) => !e.path.includes("readings[")) ?? [];
  const moved = (pin: number, station: number, amount: number): Reading[] => {
    const before = solvedSeam?.pins[pin];
    return readings.map((reading, index) => {
      if (index !== pin || !before) return reading;
      // A length nobody moved stays exactly as it was written.
      return {
        ...reading,
        station: station === before.station.nm ? reading.station : onTape(station, tape),
        amount: amount === before.amount.nm ? reading.amount : onTape(amount, tape),
      };
    });
  };
  const endAt = (station: number): End => {
    const text = onTape(station, tape);
    return alteration.upper?.end === "straight_through"
      ? { end: "straight_through", from: text }
      : { end: "meets_old_stitching", station: text };
  };
  return (
    <div className="lines">
      <section className="sheet lines-strip" aria-label="Seam strip">
        <div className="section-head">
          <h2>
            {solvedSeam?.name ?? spoken(seam)}
            {solvedSeam && <small className="quiet"> · {solvedSeam.sides.words}</small>}
          </h2>
          <Tools
            card={`/garments/${props.garment}/cards/${seam}?try-on=${tryOn.id ?? ""}`}
            hasCard={result?.cards.some((c) => c.seam === seam) ?? false}
            stretched={stretched}
            onStretch={setStretched}
            canUndo={props.canUndo}
            canRedo={props.canRedo}
            onUndo={props.onUndo}
            onRedo={props.onRedo}
          />
        </div>
        {solvedSeam && solved && result ? (
          <SeamStrip
            seam={solvedSeam}
            mark={solved.mark_nm}
            stretched={stretched}
            picked={picked}
            onPick={setPicked}
            onPin={(pin, to, done) => {
              const next = changed({ readings: moved(pin, to.station, to.amount) });
              if (done) onChange(next);
              else onPreview(next);
            }}
            onRemove={(pin) => {
              onChange(changed({ readings: readings.filter((_, index) => index !== pin) }));
            }}
            onEnd={(station, done) => {
              const next = changed({ upper: endAt(station) });
              if (done) onChange(next);
              else onPreview(next);
            }}
          />
        ) : (
          <p className="quiet empty">
            No pins on the {spoken(seam)} yet. Type the first one below: how far up the seam, and what the
            tape says.
          </p>
        )}
        <p className="strip-key">
          <span className="key key-before">old stitching</span>
          <span className="key key-after">new stitching</span>
          <span className="key key-band">within {solvedSeam?.tolerance.text ?? "tolerance"} of the pins</span>
          <span className="key key-channel">allowance, {solvedSeam?.allowance.text} each edge</span>
          {solvedSeam?.strip.blocks.length ? <span className="key key-block">in the way</span> : null}
          <span>stations up from the {solvedSeam?.datum ?? "hem"}</span>
        </p>
        {others.length > 0 && (
          <p className="field-trouble" role="alert">
            {others.map((e) => `${e.found}. Expected ${e.expected}.`).join(" ")} The drawing shows the last
            line that could be made.
          </p>
        )}
      </section>
      <PinsAndChecks
        tryOn={useDeferredValue(tryOn)}
        solved={useDeferredValue(solved)}
        problem={problem}
        seam={seam}
        picked={picked}
        onPick={setPicked}
        onChange={onChange}
      />
    </div>
  );
}

interface ToolsProps {
  card: string;
  hasCard: boolean;
  stretched: boolean;
  onStretch: (stretched: boolean) => void;
  canUndo: boolean;
  canRedo: boolean;
  onUndo: () => void;
  onRedo: () => void;
}

const Tools = memo(function Tools(props: ToolsProps) {
  return (
    <div className="tools">
      <Segmented
        aria-label="Scale of the drawing"
        size="small"
        options={[
          { value: "stretched", label: "stretched" },
          { value: "true", label: "true proportion" },
        ]}
        value={props.stretched ? "stretched" : "true"}
        onChange={(value) => {
          props.onStretch(value === "stretched");
        }}
      />
      <UndoTools
        canUndo={props.canUndo}
        canRedo={props.canRedo}
        onUndo={props.onUndo}
        onRedo={props.onRedo}
      />
      <Link to={props.card}>
        <Button type="primary" icon={<PrinterOutlined />} disabled={!props.hasCard}>
          Chalk card
        </Button>
      </Link>
    </div>
  );
});

/** The alteration of a seam in a try-on, and the try-on with it changed. */
function alterationOf(tryOn: TryOn, seam: Seam) {
  const alterations = tryOn.alterations ?? [];
  const at = alterations.findIndex((a) => a.seam === seam);
  const alteration: Alteration = alterations[at] ?? { seam, readings: [] };
  const changed = (change: Partial<Alteration>): TryOn => {
    const next = { ...alteration, ...change };
    const others = at < 0 ? [...alterations, next] : alterations.map((a, i) => (i === at ? next : a));
    return { ...tryOn, alterations: others };
  };
  return { at, alteration, changed };
}

interface RestProps {
  tryOn: TryOn;
  solved: Solved | null;
  problem: Problem | null;
  seam: Seam;
  picked: number | null;
  onPick: (pin: number) => void;
  onChange: (tryOn: TryOn) => void;
}

/** What need not follow a dragging hand at once: the pins as figures, the settings, the checks. */
const PinsAndChecks = memo(function PinsAndChecks(props: RestProps) {
  const { tryOn, solved, problem, seam, picked, onPick, onChange } = props;
  const { at, alteration, changed } = alterationOf(tryOn, seam);
  const result = solved?.try_ons[0];
  const solvedSeam = result?.seams.find((s) => s.seam === seam) ?? null;
  const complaint = (reading: number, field: string): Complaint | undefined =>
    problem?.errors?.find((e) => e.path === `try_ons[0].alterations[${at}].readings[${reading}].${field}`);
  return (
    <>
      <section className="sheet lines-pins" aria-label="Pins">
        <div className="section-head">
          <h2>Pins</h2>
          {solvedSeam?.moves && <small className="quiet">{solvedSeam.moves}</small>}
        </div>
        <PinTable
          alteration={alteration}
          solved={solvedSeam}
          complaint={complaint}
          picked={picked}
          onPick={onPick}
          onChange={(changedReadings) => {
            onChange(changed({ readings: changedReadings }));
          }}
        />
        <LineSettings
          alteration={alteration}
          solved={solvedSeam}
          onChange={(change) => {
            onChange(changed(change));
          }}
        />
      </section>
      <section className="sheet lines-checks" aria-label="Checks">
        <div className="section-head">
          <h2>Checks</h2>
        </div>
        <Checks checks={result?.checks ?? []} />
      </section>
    </>
  );
});
