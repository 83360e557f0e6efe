import { PrinterOutlined } from "@ant-design/icons";
import { Button, Segmented } from "antd";
import { memo, useDeferredValue, useEffect, useState } from "react";
import { Link } from "react-router";
import type { Complaint, End, Garment, Problem, Reading, Solved, Tape, TryOn } from "../api/client";
import { SeamStrip } from "../drawing/SeamStrip";
import { Words } from "../drawing/Words";
import { OF, spoken } from "../drawing/words";
import { UndoTools } from "../kept/UndoTools";
import { useSettings } from "../settings";
import { ChangesBar } from "./ChangesBar";
import { Checks } from "./Checks";
import { DartSettings } from "./DartSettings";
import { ElasticForm } from "./ElasticForm";
import { ELASTIC, changeable, lineOf } from "./line";
import { LineSettings } from "./LineSettings";
import { PinTable } from "./PinTable";
import type { WhatIf } from "./useWhatIf";
import { Versions } from "./Versions";
import { WhatIfBar } from "./WhatIfBar";

interface Props {
  id: string;
  garment: Garment;
  solved: Solved | null;
  problem: Problem | null;
  /** Which change is open, by its key. */
  picked: string;
  onPick: (key: string) => void;
  /** The try-on that is changed: the kept one, or one that is only tried out. */
  whatIf: WhatIf;
  /** A change while something is dragged: shown, not kept. */
  onPreview: (tryOn: TryOn) => void;
  /** Whatever was dragged is let go of: what is kept is shown again. */
  onLetGo: () => void;
}

/** A whole number of tape marks as a document holds it, in the unit of the tape. */
function onTape(nm: number, tape: Tape): string {
  return tape.startsWith("in") ? `${Math.round(nm / 1_587_500)}/16 in` : `${nm / 1e7} cm`;
}

/** From pins to stitching lines: the strip and the pins side by side, the ease ladder, the checks. */
export function LinesStage(props: Props) {
  const { garment, solved, problem, picked: key, whatIf, onPreview, onLetGo } = props;
  const { tape } = useSettings();
  const [pin, setPin] = useState<number | null>(null);
  const [stretched, setStretched] = useState(true);
  const tryOn = whatIf.value;
  const onChange = whatIf.change;
  const line = lineOf(tryOn, key);
  const { readings } = line;
  const seam = key === ELASTIC ? undefined : line.seam;
  const result = solved?.try_ons[0];
  const later = useDeferredValue(solved);
  // A hand that holds something when another seam is picked, or the page is left, holds it no longer.
  useEffect(() => onLetGo, [key, onLetGo]);
  const drawn = [...(result?.seams ?? []), ...(result?.darts ?? [])].find((s) => s.key === key) ?? null;
  const name = drawn?.name ?? changeable(garment).find((c) => c.value === key)?.label ?? spoken(key);
  const others =
    problem?.errors?.filter((e) => !/readings\[|spread|elastic|\.(point|base)$/.test(e.path)) ?? [];
  const moved = (pin: number, station: number, amount: number): Reading[] => {
    const before = drawn?.pins[pin];
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
    return seam?.alteration.upper?.end === "straight_through"
      ? { end: "straight_through", from: text }
      : { end: "meets_old_stitching", station: text };
  };
  return (
    <div className="lines">
      <section className="sheet lines-strip" aria-label="Seam strip">
        <ChangesBar garment={garment} result={later?.try_ons[0]} picked={key} onPick={props.onPick} />
        <WhatIfBar whatIf={whatIf} />
        <div className="section-head">
          <h2>
            {key === ELASTIC ? "elastic in the waistband" : name}
            {drawn && <small className="quiet"> · {drawn.sides.words}</small>}
          </h2>
          <Tools
            card={`/garments/${props.id}/cards/${key}?try-on=${tryOn.id ?? ""}`}
            hasCard={
              !whatIf.isOn && (key === ELASTIC ? Boolean(result?.elastic?.cut) : drawn?.is_altered === true)
            }
            stretched={key === ELASTIC ? null : stretched}
            onStretch={setStretched}
            whatIf={whatIf}
          />
        </div>
        {key === ELASTIC && (
          <ElasticForm
            plan={tryOn.elastic ?? null}
            solved={result?.elastic ?? null}
            complaint={(field) => problem?.errors?.find((e) => e.path === `try_ons[0].elastic.${field}`)}
            onChange={(elastic) => {
              onChange({ ...tryOn, elastic });
            }}
          />
        )}
        {key !== ELASTIC && drawn && solved && (
          <SeamStrip
            key={key}
            seam={drawn}
            mark={solved.mark_nm}
            stretched={stretched}
            picked={pin}
            onPick={setPin}
            onPin={(pin, to, done) => {
              const next = line.withReadings(moved(pin, to.station, to.amount));
              if (!done) {
                onPreview(next);
                return;
              }
              onLetGo();
              onChange(next);
            }}
            onLetGo={onLetGo}
            onRemove={(pin) => {
              onChange(line.withReadings(readings.filter((_, index) => index !== pin)));
            }}
            onEnd={(station, done) => {
              const next = seam?.changed({ upper: endAt(station) });
              if (!next) return;
              if (!done) {
                onPreview(next);
                return;
              }
              onLetGo();
              onChange(next);
            }}
          />
        )}
        {key !== ELASTIC && readings.length === 0 && !drawn?.is_altered && (
          <p className="quiet empty">
            No pins on the {name} yet. Type the first one below: how far{" "}
            {line.dart ? "from the point of the dart" : "up the seam"}, and what the tape says.
          </p>
        )}
        {seam && (
          <p className="strip-key">
            <span className="key key-before">old stitching</span>
            <span className="key key-after">new stitching</span>
            <span className="key key-band">within {drawn?.tolerance.text ?? "tolerance"} of the pins</span>
            <span className="key key-channel">allowance, {drawn?.allowance.text} each edge</span>
            {drawn?.strip.blocks.length ? <span className="key key-block">in the way</span> : null}
            <span>stations from the {drawn?.datum ?? "hem"}</span>
          </p>
        )}
        {line.dart && drawn && (
          <p className="strip-key">
            <span className="key key-before">middle of the dart</span>
            <span className="key key-after">new fold depth, to either side</span>
            <span>stations from the {drawn.datum}</span>
          </p>
        )}
        {drawn?.lengths?.map((words) => (
          <p key={words} className="quiet edge-lengths">
            <Words>{words}</Words>
          </p>
        ))}
        {others.length > 0 && (
          <p className="field-trouble" role="alert">
            {others.map((e) => `${e.found}. Expected ${e.expected}.`).join(" ")} The drawing shows the last
            line that could be made.
          </p>
        )}
      </section>
      <PinsAndChecks
        garment={garment}
        whatIf={useDeferredValue(whatIf)}
        solved={later}
        problem={problem}
        change={key}
        name={name}
        picked={pin}
        onPick={setPin}
      />
    </div>
  );
}

interface ToolsProps {
  card: string;
  hasCard: boolean;
  /** Nothing where nothing is drawn. */
  stretched: boolean | null;
  onStretch: (stretched: boolean) => void;
  whatIf: WhatIf;
}

const Tools = memo(function Tools({ card, hasCard, stretched, onStretch, whatIf }: ToolsProps) {
  return (
    <div className="tools">
      {stretched !== null && (
        <Segmented
          aria-label="Scale of the drawing"
          size="small"
          options={[
            { value: "stretched", label: "stretched" },
            { value: "true", label: "true proportion" },
          ]}
          value={stretched ? "stretched" : "true"}
          onChange={(value) => {
            onStretch(value === "stretched");
          }}
        />
      )}
      <UndoTools
        canUndo={whatIf.canUndo}
        canRedo={whatIf.canRedo}
        onUndo={whatIf.undo}
        onRedo={whatIf.redo}
      />
      {!whatIf.isOn && (
        <Button
          onClick={() => {
            whatIf.begin();
          }}
        >
          What if …
        </Button>
      )}
      <Link to={card}>
        <Button type="primary" icon={<PrinterOutlined />} disabled={!hasCard}>
          Chalk card
        </Button>
      </Link>
    </div>
  );
});

interface RestProps {
  garment: Garment;
  whatIf: WhatIf;
  solved: Solved | null;
  problem: Problem | null;
  change: string;
  name: string;
  picked: number | null;
  onPick: (pin: number) => void;
}

/** What need not follow a dragging hand at once: the pins as figures, the settings, the checks. */
const PinsAndChecks = memo(function PinsAndChecks(props: RestProps) {
  const { garment, whatIf, solved, problem, change, name, picked, onPick } = props;
  const tryOn = whatIf.value;
  const onChange = whatIf.change;
  const line = lineOf(tryOn, change);
  const result = solved?.try_ons[0];
  const drawn = [...(result?.seams ?? []), ...(result?.darts ?? [])].find((s) => s.key === change) ?? null;
  const complaint = (field: string): Complaint | undefined =>
    problem?.errors?.find((e) => e.path === `try_ons[0].${line.path}.${field}`);
  const changed = result?.levels.filter((l) => l.off.nm !== 0) ?? [];
  const passOver = (check: string, why: string | null) => {
    const others = (tryOn.passed_over ?? []).filter((p) => p.check !== check);
    onChange({ ...tryOn, passed_over: why ? [...others, { check, why }] : others });
  };
  return (
    <>
      <div className="lines-right">
        {change !== ELASTIC && (
          <section className="sheet lines-pins" aria-label="Pins">
            <div className="section-head">
              <h2>Pins</h2>
              {drawn?.moves && <small className="quiet">{drawn.moves}</small>}
              {drawn && drawn.keeps_percent < 100 && (
                <small className="quiet">{drawn.keeps_percent} % of them stay here</small>
              )}
            </div>
            <PinTable
              what={name}
              from={drawn?.datum ?? (line.dart ? "point" : "hem")}
              readings={line.readings}
              solved={drawn}
              complaint={(reading, field) => complaint(`readings[${reading}].${field}`)}
              picked={picked}
              onPick={onPick}
              onChange={(readings) => {
                onChange(line.withReadings(readings));
              }}
            />
            {line.seam && (
              <LineSettings
                garment={garment}
                alteration={line.seam.alteration}
                complaint={complaint}
                solved={drawn}
                onChange={(change) => {
                  if (line.seam) onChange(line.seam.changed(change));
                }}
              />
            )}
            {line.dart && (
              <DartSettings
                pins={line.dart.pins}
                solved={drawn}
                isNew={!garment.darts?.some((d) => d.dart === line.dart?.pins.dart)}
                complaint={complaint}
                onChange={(change) => {
                  if (line.dart) onChange(line.dart.changed(change));
                }}
              />
            )}
          </section>
        )}
        <Versions garment={garment} whatIf={whatIf} />
      </div>
      <section className="sheet lines-checks" aria-label="Checks">
        <div className="section-head">
          <h2>Checks</h2>
        </div>
        <Checks checks={result?.checks ?? []} onPassOver={passOver} />
      </section>
      {changed.length > 0 && (
        <section className="sheet lines-together" aria-label="All changes together">
          <div className="section-head">
            <h2>All changes together</h2>
          </div>
          <dl>
            {changed.map((level) => (
              <div key={level.level + level.of}>
                <dt>
                  {spoken(level.level)}, {OF[level.of]}
                </dt>
                <dd className="figure">
                  <Words>{level.sum}</Words>
                </dd>
              </div>
            ))}
          </dl>
        </section>
      )}
    </>
  );
});
