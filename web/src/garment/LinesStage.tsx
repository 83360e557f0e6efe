import { PrinterOutlined } from "@ant-design/icons";
import { Button, Segmented } from "antd";
import { clsx } from "clsx";
import { memo, useDeferredValue, useEffect, useState } from "react";
import type {
  ChangeKey,
  Check,
  Complaint,
  Document,
  FindingKey,
  Problem,
  Reading,
  Solved,
  Tape,
  TryOn,
} from "../api/client";
import { ChangesBar } from "../changes/ChangesBar";
import { editorOf, type Dragging, type ShowsOf } from "../changes/editors";
import { PinTable } from "../changes/PinTable";
import { SeamStrip } from "../changes/SeamStrip";
import {
  changeAt,
  inputOf,
  kindOf,
  lineOf,
  placeOf,
  readingsOf,
  stateOf,
  withChange,
  withInput,
  withoutChange,
  withReadings,
  type Kind,
} from "../document/changes";
import { nameOf } from "../document/findings";
import { UndoTools } from "../document/UndoTools";
import { useWords } from "../document/useWords";
import { WhichWay } from "../method/WhichWay";
import type { WhatIf } from "../document/useWhatIf";
import { Words } from "../drawing/Words";
import { useSettings } from "../settings";
import { LinkButton } from "../shell/LinkButton";
import { Checks } from "./Checks";
import { Versions } from "./Versions";
import { WhatIfBar } from "./WhatIfBar";
import styles from "./lines.module.css";
import sheet from "../shell/sheet.module.css";

interface Props {
  id: string;
  garment: Document;
  solved: Solved | null;
  problem: Problem | null;
  /** Which change is open. */
  picked: ChangeKey;
  onPick: (key: ChangeKey) => void;
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

/** A change of a try-on: how its kind is edited, and what follows from it. */
function changeIn(solved: Solved | null, key: ChangeKey) {
  const editor = editorOf(kindOf(key));
  const there = solved?.try_ons[0]?.changes.find((change) => change.key === key);
  const shows = there ? ((Object.values(there.shows)[0] as ShowsOf<Kind> | undefined) ?? null) : null;
  const name = there?.name ?? solved?.changeable.find((change) => change.key === key)?.name ?? "";
  return { editor, shows, line: there ? lineOf(there) : null, name, hasCard: there?.has_card ?? false };
}

/** From pins to stitching lines: the strip and the pins side by side, the ease ladder, the checks. */
export function LinesStage(props: Props) {
  const { solved, problem, picked: key, whatIf, onPreview, onLetGo } = props;
  const { tape } = useSettings();
  const [pin, setPin] = useState<number | null>(null);
  const [stretched, setStretched] = useState(true);
  // What is to be mended by what is tried out, as it was before.
  const [before, setBefore] = useState<Check | null>(null);
  const [isAsking, setAsking] = useState(false);
  const tryOn = whatIf.value;
  const change = changeAt(tryOn, key);
  const readings = readingsOf(change);
  const { editor, line, name, hasCard } = changeIn(solved, key);
  const later = useDeferredValue(solved);
  const laterWhatIf = useDeferredValue(whatIf);
  // A hand that holds something when another seam is picked, or the page is left, holds it no longer.
  useEffect(() => onLetGo, [key, onLetGo]);
  const others = problem?.errors?.filter((e) => !isBeside(e, tryOn, key)) ?? [];
  const moved = (pin: number, station: number, amount: number): Reading[] => {
    const before = line?.pins[pin];
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
  const set = (next: TryOn, done: boolean) => {
    if (!done) {
      onPreview(next);
      return;
    }
    onLetGo();
    whatIf.change(next);
  };
  const tryOut = (changes: NonNullable<TryOn["changes"]>) => {
    const tried = { ...tryOn, changes };
    if (whatIf.isOn) whatIf.change(tried);
    else whatIf.begin(tried);
  };
  if (isAsking) {
    return (
      <div className={styles["lines"]}>
        <WhichWay
          id={props.id}
          garment={props.garment}
          tryOn={tryOn}
          levels={solved?.try_ons[0]?.levels ?? []}
          onTryOn={whatIf.change}
          onTake={(changes, first) => {
            setBefore(null);
            tryOut(changes);
            if (first) props.onPick(first);
            setAsking(false);
            scrollTo({ top: 0 });
          }}
          onClose={() => {
            setAsking(false);
          }}
        />
      </div>
    );
  }
  return (
    <div className={styles["lines"]}>
      <section className={clsx("sheet", styles["strip"])} aria-label="Seam strip">
        <ChangesBar solved={later} picked={key} onPick={props.onPick} />
        <WhatIfBar
          whatIf={whatIf}
          before={before}
          after={
            before
              ? solved?.try_ons[0]?.checks.find((check) => nameOf(check.key) === nameOf(before.key))
              : undefined
          }
        />
        <div className={sheet["section-head"]}>
          <h2>
            {name}
            {line && <small className="quiet"> · {line.sides.words}</small>}
          </h2>
          <Tools
            card={`/garments/${props.id}/cards/${key}?try-on=${tryOn.id ?? ""}`}
            hasCard={!whatIf.isOn && hasCard}
            stretched={line ? stretched : null}
            onStretch={setStretched}
            whatIf={whatIf}
            onBegin={() => {
              setBefore(null);
            }}
            onWhichWay={() => {
              setAsking(true);
            }}
          />
        </div>
        {line && solved && (
          <SeamStrip
            key={key}
            name={name}
            seam={line}
            unit={solved.unit}
            mark={solved.mark_nm}
            stretched={stretched}
            picked={pin}
            onPick={setPin}
            onPin={(pin, to, done) => {
              set(withReadings(tryOn, key, moved(pin, to.station, to.amount)), done);
            }}
            onLetGo={onLetGo}
            onRemove={(pin) => {
              const left = readings.filter((_, index) => index !== pin);
              whatIf.change(withReadings(tryOn, key, left));
            }}
            onEnd={(station, done) => {
              const end = editor.withEnd(inputOf(kindOf(key), change), onTape(station, tape));
              if (end) set(withInput(tryOn, key, end), done);
            }}
          />
        )}
        {line && readings.length === 0 && !line.is_altered && (
          <p className={clsx("quiet", sheet["empty"])}>
            No pins on the {name} yet. Type the first one below: how far {editor.pins?.along}, and what the
            tape says.
          </p>
        )}
        {line && <p className={styles["strip-key"]}>{editor.legend(line)}</p>}
        {line?.lengths?.map((words) => (
          <p key={words} className={clsx("quiet", styles["edge-lengths"])}>
            <Words>{words}</Words>
          </p>
        ))}
        {!editor.pins && (
          <Settings
            {...props}
            solved={solved}
            dragging={{
              mark: solved?.mark_nm ?? 1e6,
              onTape: (nm) => onTape(nm, tape),
              set,
              onLetGo,
            }}
          />
        )}
        {others.length > 0 && (
          <p className="field-trouble" role="alert">
            {others.map((e) => `${e.found}. Expected ${e.expected}.`).join(" ")} The drawing shows the last
            line that could be made.
          </p>
        )}
      </section>
      <PinsAndChecks
        garment={props.garment}
        whatIf={laterWhatIf}
        solved={later}
        problem={problem}
        picked={key}
        pin={pin}
        onPin={setPin}
        onPick={props.onPick}
        onMend={(check) => {
          setBefore(check);
          tryOut((check.mend ?? []).reduce(withChange, tryOn).changes ?? []);
        }}
      />
    </div>
  );
}

/** Where the faults of a change are named. */
const pathOf = (tryOn: TryOn, key: ChangeKey) => `try_ons[0].changes[${placeOf(tryOn, key)}].${kindOf(key)}.`;

/** A fault that is shown beside its field. */
const isBeside = (fault: Complaint, tryOn: TryOn, key: ChangeKey) =>
  fault.path.startsWith(pathOf(tryOn, key)) && editorOf(kindOf(key)).ownFaults.test(fault.path);

/** What is set for the change that is open, beside its pins. */
function Settings({ garment, solved, problem, picked: key, whatIf, dragging }: SettingsProps & Drag) {
  const tryOn = whatIf.value;
  const state = stateOf(garment, tryOn);
  const { editor, shows } = changeIn(solved, key);
  if (!state) return null;
  return (
    <editor.Settings
      garment={state.garment}
      tryOn={tryOn}
      onTryOn={whatIf.change}
      input={inputOf(kindOf(key), changeAt(tryOn, key))}
      shows={shows}
      complaint={(field) => problem?.errors?.find((e) => e.path === pathOf(tryOn, key) + field)}
      onChange={(change) => {
        whatIf.change(withInput(tryOn, key, change));
      }}
      onRemove={() => {
        whatIf.change(withoutChange(tryOn, key));
      }}
      {...(dragging && { dragging })}
    />
  );
}

interface Drag {
  dragging?: Dragging;
}

type SettingsProps = Pick<Props, "garment" | "solved" | "problem" | "picked" | "whatIf">;

interface ToolsProps {
  card: string;
  hasCard: boolean;
  /** Nothing where nothing is drawn. */
  stretched: boolean | null;
  onStretch: (stretched: boolean) => void;
  whatIf: WhatIf;
  onBegin: () => void;
  onWhichWay: () => void;
}

const Tools = memo(function Tools(props: ToolsProps) {
  const { card, hasCard, stretched, onStretch, whatIf, onBegin, onWhichWay } = props;
  return (
    <div className={sheet["tools"]}>
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
      <Button onClick={onWhichWay}>Which way?</Button>
      {!whatIf.isOn && (
        <Button
          onClick={() => {
            onBegin();
            whatIf.begin();
          }}
        >
          What if …
        </Button>
      )}
      <LinkButton type="primary" to={card} icon={<PrinterOutlined />} disabled={!hasCard}>
        Chalk card
      </LinkButton>
    </div>
  );
});

interface RestProps extends SettingsProps {
  pin: number | null;
  onPin: (pin: number) => void;
  onPick: (key: ChangeKey) => void;
  onMend: (check: Check) => void;
}

/** What need not follow a dragging hand at once: the pins as figures, the settings, the checks. */
const PinsAndChecks = memo(function PinsAndChecks(props: RestProps) {
  const { garment, whatIf, solved, problem, picked: key, pin, onPin } = props;
  const words = useWords();
  const tryOn = whatIf.value;
  const onChange = whatIf.change;
  const result = solved?.try_ons[0];
  const { editor, line, name } = changeIn(solved, key);
  const ways = words.options<Reading["how"]>("how");
  const changed = result?.levels.filter((l) => l.is_changed) ?? [];
  const passOver = (finding: FindingKey, why: string | null) => {
    const others = (tryOn.passed_over ?? []).filter((p) => nameOf(p.finding) !== nameOf(finding));
    onChange({ ...tryOn, passed_over: why ? [...others, { finding, why }] : others });
  };
  const checks = (
    <section className="sheet" aria-label="Checks">
      <div className={sheet["section-head"]}>
        <h2>Checks</h2>
      </div>
      <Checks
        checks={result?.checks ?? []}
        onPassOver={passOver}
        onMend={props.onMend}
        picked={key}
        onPick={props.onPick}
      />
    </section>
  );
  const together = changed.length > 0 && (
    <section className={clsx("sheet", styles["together"])} aria-label="All changes together">
      <div className={sheet["section-head"]}>
        <h2>All changes together</h2>
      </div>
      <dl>
        {changed.map((level) => (
          <div key={level.level + level.of}>
            <dt>
              {words.of("level", level.level)}, {words.of("level_of", level.of)}
            </dt>
            <dd className="figure">
              <Words>{level.sum}</Words>
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
  // A change without pins leaves their place to the checks, and what it comes to stands below it.
  return (
    <>
      <div className={styles["right"]}>
        {!editor.pins && checks}
        {editor.pins && (
          <section className="sheet" aria-label="Pins">
            <div className={sheet["section-head"]}>
              <h2>Pins</h2>
              {line?.moves && <small className="quiet">{line.moves}</small>}
              {line && line.keeps_percent < 100 && (
                <small className="quiet">{line.keeps_percent} % of them stay here</small>
              )}
            </div>
            <PinTable
              what={name}
              from={line?.datum ?? editor.pins.from}
              readings={readingsOf(changeAt(tryOn, key))}
              solved={line}
              ways={line?.ways.map(({ how, label, short }) => ({ value: how, label, short })) ?? ways}
              complaint={(reading, field) =>
                problem?.errors?.find((e) => e.path === `${pathOf(tryOn, key)}readings[${reading}].${field}`)
              }
              picked={pin}
              onPick={onPin}
              onChange={(readings) => {
                onChange(withReadings(tryOn, key, readings));
              }}
            />
            <Settings {...props} />
          </section>
        )}
        {editor.pins && together}
        <Versions garment={garment} whatIf={whatIf} />
      </div>
      {editor.pins ? checks : together}
    </>
  );
});
