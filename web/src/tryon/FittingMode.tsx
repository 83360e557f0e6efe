import { CloseOutlined, RedoOutlined, UndoOutlined } from "@ant-design/icons";
import { App, Button, Modal } from "antd";
import { useEffect, useMemo, useState, type ReactNode } from "react";
import type { Asking, Garment, PinPlace, Reading, Step, TryOn } from "../api/client";
import { Words } from "../drawing/Words";
import { spoken } from "../drawing/words";
import { useStand } from "../garment/useDerived";
import { useSolved } from "../garment/useSolved";
import type { Kept } from "../kept/useKept";
import { useSettings } from "../settings";
import { ApartOnTwo } from "./ApartOnTwo";
import { Conditions } from "./Conditions";
import { pinAt, withLeftOut, withPin, withoutPin } from "./entries";
import { HemStep } from "./HemStep";
import { measureOf, NOTHING, NumberPad, typedOf, type Typed } from "./NumberPad";
import { Observations } from "./Observations";
import { PlacePicture } from "./PlacePicture";
import { ask, useAsking } from "./useAsking";
import "./fitting.css";

export const HOWS: { value: Reading["how"]; label: string; words: string }[] = [
  { value: "fold", label: "fold", words: "from the old seam to the pin, on folded cloth" },
  { value: "whole", label: "pinch", words: "all that is pinched out" },
  { value: "front_panel", label: "front only", words: "taken from the front edge alone" },
  { value: "back_panel", label: "back only", words: "taken from the back edge alone" },
  { value: "gap", label: "gap", words: "the gap in the opened seam: let out" },
];

export interface FromTape {
  reading: string;
  /** Counts, so that the same figure twice is two readings. */
  number: number;
}

interface Props {
  id: string;
  garment: Garment;
  before: TryOn | undefined;
  kept: Kept<TryOn>;
  /** The last reading of the digital tape. */
  fromTape: FromTape | null;
  /** Tells second screens what is asked and typed. */
  onAsked: (step: string, typed: string) => void;
  onClose: () => void;
}

/** Keeps the screen awake while it is shown, where the browser can. */
function useWakeLock() {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    const keep = () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      navigator.wakeLock.request("screen").then(
        (got) => (lock = got),
        () => undefined,
      );
    };
    keep();
    document.addEventListener("visibilitychange", keep);
    return () => {
      document.removeEventListener("visibilitychange", keep);
      void lock?.release();
    };
  }, []);
}

/** The try-on on the whole screen: one question, one pad, left and right, next. */
export function FittingMode({ id, garment, before, kept, fromTape, onAsked, onClose }: Props) {
  useWakeLock();
  const { tape } = useSettings();
  const tryOn = kept.value;
  const asking = useAsking(garment, before, tryOn, tape);
  const stand = useStand(id, garment);
  const [at, setAt] = useState(0);
  const steps = asking.data?.steps ?? [];
  const last = steps.length + 1;
  const go = (to: number) => {
    setAt(Math.max(0, Math.min(to, last)));
  };
  const step = at > 0 ? steps[at - 1] : undefined;
  const stepKey = at === 0 ? "conditions" : (step?.key ?? "seen");
  useEffect(() => {
    onAsked(stepKey, "");
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each step
  }, [stepKey]);
  const title = at === 0 ? "Before the first pin" : (step?.title ?? "What was seen");
  const frame = { title, at, of: last, kept, steps, onGo: go, onClose };
  if (at === 0)
    return (
      <Frame {...frame}>
        <div className="fitting-scroll">
          <Conditions tryOn={tryOn} onChange={kept.change} large />
        </div>
        <Foot
          onNext={() => {
            go(1);
          }}
        />
      </Frame>
    );
  if (!step)
    return (
      <Frame {...frame}>
        <div className="fitting-scroll">
          <Observations tryOn={tryOn} garment={garment} onChange={kept.change} large />
        </div>
        <Foot
          onBack={() => {
            go(at - 1);
          }}
          next="Done"
          onNext={onClose}
        />
      </Frame>
    );
  const moves = {
    onBack: () => {
      go(at - 1);
    },
    onNext: () => {
      go(at + 1);
    },
  };
  return (
    <Frame {...frame}>
      {step.pins?.length ? (
        <PinStep
          key={step.key}
          step={step}
          places={step.pins}
          garment={garment}
          before={before}
          kept={kept}
          stand={stand}
          fromTape={fromTape}
          onAsked={onAsked}
          {...moves}
        />
      ) : step.hem?.length ? (
        <HemStep
          key={step.key}
          step={step}
          places={step.hem}
          tryOn={tryOn}
          fromTape={fromTape}
          onChange={kept.change}
          {...moves}
        />
      ) : (
        <MovingStep step={step} tryOn={tryOn} fromTape={fromTape} onChange={kept.change} {...moves} />
      )}
    </Frame>
  );
}

interface FrameProps {
  title: string;
  at: number;
  of: number;
  kept: Kept<TryOn>;
  steps: Asking["steps"];
  onGo: (to: number) => void;
  onClose: () => void;
  children: ReactNode;
}

function Frame({ title, at, of, kept, steps, onGo, onClose, children }: FrameProps) {
  const { problem, isStored } = kept;
  const words =
    problem?.status === 0 || problem?.status === 503
      ? "kept here, sent when there is a network"
      : problem
        ? problem.title.toLowerCase()
        : isStored
          ? "stored"
          : "storing…";
  return (
    <main className="fitting">
      <header className="fitting-head">
        <Button type="text" aria-label="Close the fitting mode" icon={<CloseOutlined />} onClick={onClose} />
        <h1>{title}</h1>
        <Button
          type="text"
          aria-label="Undo"
          icon={<UndoOutlined />}
          disabled={!kept.canUndo}
          onClick={kept.undo}
        />
        <Button
          type="text"
          aria-label="Redo"
          icon={<RedoOutlined />}
          disabled={!kept.canRedo}
          onClick={kept.redo}
        />
      </header>
      <nav className="fitting-way" aria-label="Places">
        {["Before the first pin", ...steps.map((s) => s.title), "What was seen"].map((name, index) => {
          const asked = steps[index - 1];
          const marks = [
            index === at && "here",
            asked?.settled && "settled",
            asked?.suggested && "suggested",
          ];
          return (
            <button
              key={`${name} ${index}`}
              type="button"
              className={marks.filter(Boolean).join(" ")}
              aria-label={`${name}${asked?.settled ? ", entered" : ""}${asked?.suggested ? ", worth a look" : ""}`}
              aria-current={index === at ? "step" : undefined}
              onClick={() => {
                onGo(index);
              }}
            />
          );
        })}
      </nav>
      <p
        className={problem ? "fitting-kept trouble-words" : "fitting-kept"}
        role="status"
        data-stored={isStored}
      >
        {at} of {of} · {words}
      </p>
      <ApartOnTwo kept={kept} />
      {problem?.errors?.map((e) => (
        <p key={e.path} className="field-trouble" role="alert">
          {e.found}. Expected {e.expected}.
        </p>
      ))}
      {children}
    </main>
  );
}

interface FootProps {
  onBack?: () => void;
  onNext: () => void;
  next?: string;
  children?: ReactNode;
}

/** The way on, where the thumb is. */
export function Foot({ onBack, onNext, next = "Next", children }: FootProps) {
  return (
    <footer className="fitting-foot">
      {onBack && (
        <button type="button" className="foot-key" onClick={onBack}>
          Back
        </button>
      )}
      {children}
      <button type="button" className="foot-key next" onClick={onNext}>
        {next}
      </button>
    </footer>
  );
}

interface MovesProps {
  onBack: () => void;
  onNext: () => void;
}

interface PinStepProps extends MovesProps {
  step: Step;
  places: PinPlace[];
  garment: Garment;
  before: TryOn | undefined;
  kept: Kept<TryOn>;
  stand: ReturnType<typeof useStand>;
  fromTape: FromTape | null;
  onAsked: (step: string, typed: string) => void;
}

interface Doubt {
  question: string;
  instead: string | null;
  keep: () => void;
}

function PinStep({
  step,
  places,
  garment,
  before,
  kept,
  stand,
  fromTape,
  onAsked,
  onBack,
  onNext,
}: PinStepProps) {
  const { tape } = useSettings();
  const tryOn = kept.value;
  const [chosen, setChosen] = useState(0);
  const place = places[Math.min(chosen, places.length - 1)];
  const [which, setWhich] = useState(0);
  const side = place?.sides[Math.min(which, place.sides.length - 1)];
  const there = place && side ? pinAt(tryOn, place, side) : undefined;
  const spot = `${place?.name ?? ""} ${side?.side ?? ""}`;
  // What is typed belongs to one place; another place begins with what is there.
  const [pad, setPad] = useState<{ spot: string; typed: Typed; how: Reading["how"] } | null>(null);
  const [lastHow, setLastHow] = useState<Reading["how"]>("fold");
  const typed = pad?.spot === spot ? pad.typed : typedOf(there?.amount, tape);
  const how = pad?.spot === spot ? pad.how : (there?.how ?? lastHow);
  const [doubt, setDoubt] = useState<Doubt | null>(null);
  const amount = measureOf(typed, tape);
  const isNew = amount !== null && (amount !== there?.amount || how !== there.how);
  const candidate = useMemo(
    () => (place && side && amount !== null ? withPin(tryOn, place, side, { amount, how }) : tryOn),
    [tryOn, place, side, amount, how],
  );
  const shown = isNew ? candidate : tryOn;
  const document = useMemo(() => ({ version: 1, garment, try_ons: [shown] }), [garment, shown]);
  const { solved, problem } = useSolved(document, tape);
  const [taken, setTaken] = useState(fromTape?.number ?? 0);
  const type = (next: Typed, nextHow = how) => {
    setPad({ spot, typed: next, how: nextHow });
    onAsked(step.key, `${side?.words ?? ""}: ${measureOf(next, tape) ?? "–"}`);
  };
  if (fromTape && fromTape.number !== taken) {
    setTaken(fromTape.number);
    setPad({ spot, typed: { ...NOTHING, sent: fromTape.reading }, how });
  }
  if (!place || !side) return null;

  const forward = () => {
    const alone = (tryOn.pinned_by ?? "self_in_mirror") === "self_in_mirror";
    const isLast = which >= place.sides.length - 1 || (alone && which === 0);
    if (isLast) onNext();
    else setWhich(which + 1);
  };
  const store = (measure: string) => {
    kept.change(withPin(tryOn, place, side, { amount: measure, how }));
    setLastHow(how);
    setPad(null);
    setDoubt(null);
    forward();
  };
  const enter = async () => {
    if (!isNew) {
      if (amount === null && there) kept.change(withoutPin(tryOn, place, side));
      setPad(null);
      forward();
      return;
    }
    const id = pinAt(candidate, place, side)?.id;
    const doubts = await ask(garment, before ? [before, candidate] : [candidate], tape).then(
      (found) => found.doubts,
      // Without a network it is asked about when there is one.
      () => [],
    );
    const found = doubts.find((d) => d.id === id);
    if (!found) {
      store(amount);
      return;
    }
    setDoubt({
      question: found.question,
      instead: found.instead ?? null,
      keep: () => {
        store(amount);
      },
    });
  };
  const wrong = isNew ? problem?.errors?.find((e) => e.path.includes("readings[")) : undefined;
  const seamResult = solved?.try_ons[0]?.seams.find((s) => s.seam === place.seam);
  const pinIndex = (shown.alterations ?? [])
    .find((a) => a.seam === place.seam)
    ?.readings?.findIndex((r) => r.id === pinAt(shown, place, side)?.id);
  const pin = pinIndex === undefined || pinIndex < 0 ? undefined : seamResult?.pins[pinIndex];
  const dartPin = place.dart && !isNew ? side.pin : undefined;
  const level = solved?.try_ons[0]?.levels.find((l) => l.level === place.level);
  const figures = pin ?? dartPin;
  return (
    <>
      <div className="fitting-scroll">
        <div className="fitting-place">
          <PlacePicture stand={stand} side={side} />
          <div className="fitting-figures" aria-live="polite">
            {step.hints.map((hint) => (
              <p key={hint} className="fitting-hint">
                {hint}
              </p>
            ))}
            {wrong ? (
              <p className="field-trouble" role="alert">
                {wrong.found}. Expected {wrong.expected}.
              </p>
            ) : (
              figures &&
              amount !== null && (
                <dl>
                  <dt>{figures.front.nm === figures.back.nm ? "each edge" : "front, back edge"}</dt>
                  <dd>
                    <Words>
                      {figures.front.nm === figures.back.nm
                        ? figures.front.text
                        : `${figures.front.bare}, ${figures.back.text}`}
                    </Words>
                  </dd>
                  <dt>altogether, this side</dt>
                  <dd>
                    <Words>{figures.whole.text}</Words>
                  </dd>
                </dl>
              )
            )}
            {level && (
              <dl>
                <dt>{spoken(level.level)} will measure, round</dt>
                <dd>
                  <Words>{level.after.text}</Words>
                </dd>
              </dl>
            )}
          </div>
        </div>
        <div className="chips" role="group" aria-label="Which seam">
          {places.map((one, index) => (
            <button
              key={one.name}
              type="button"
              className={one === place ? "chip chosen" : "chip"}
              aria-pressed={one === place}
              onClick={() => {
                setChosen(index);
                setWhich(0);
              }}
            >
              {one.name}
            </button>
          ))}
        </div>
        <p className="fitting-at">
          <Words>{`${place.at.text} from ${place.datum === "its point" ? "its point" : `the ${place.datum}`}`}</Words>
        </p>
        {place.sides.length > 1 && (
          <div className="sides" role="group" aria-label="Which side">
            {place.sides.map((one, index) => {
              const pinned = pinAt(tryOn, place, one);
              return (
                <button
                  key={one.side}
                  type="button"
                  className={one === side ? "side chosen" : "side"}
                  aria-pressed={one === side}
                  aria-label={one.words}
                  onClick={() => {
                    setWhich(index);
                  }}
                >
                  <strong>
                    {tryOn.pinned_by === "dress_form" ? "form’s" : "wearer’s"} {one.wearer_side}
                  </strong>
                  <small>
                    garment’s {one.side}
                    {pinned ? ` · ${pinned.amount}` : one.left_out ? ` · ${spoken(one.left_out)}` : ""}
                  </small>
                </button>
              );
            })}
          </div>
        )}
        <div className="chips" role="group" aria-label="How it was measured">
          {HOWS.map((one) => (
            <button
              key={one.value}
              type="button"
              title={one.words}
              className={how === one.value ? "chip chosen" : "chip"}
              aria-pressed={how === one.value}
              onClick={() => {
                type(typed, one.value);
              }}
            >
              {one.label}
            </button>
          ))}
        </div>
      </div>
      <output className="fitting-number" aria-label="Typed">
        {amount ? <Words>{amount}</Words> : <span className="quiet">nothing pinned here</span>}
      </output>
      <NumberPad
        tape={tape}
        typed={typed}
        onType={(next) => {
          type(next);
        }}
      />
      <Foot
        onBack={
          which > 0
            ? () => {
                setWhich(which - 1);
              }
            : onBack
        }
        onNext={() => void enter()}
      >
        {place.seam && (
          <>
            <button
              type="button"
              className="foot-key small"
              onClick={() => {
                kept.change(withLeftOut(tryOn, place, side, "out_of_reach"));
                forward();
              }}
            >
              Can’t reach
            </button>
            {place.sides.length > 1 && (
              <button
                type="button"
                className="foot-key small"
                onClick={() => {
                  kept.change(withLeftOut(tryOn, place, side, "copy_later"));
                  forward();
                }}
              >
                Copy later
              </button>
            )}
          </>
        )}
      </Foot>
      <Modal
        title="Is that so?"
        open={doubt !== null}
        onCancel={() => {
          setDoubt(null);
        }}
        footer={
          doubt && (
            <>
              <Button size="large" onClick={doubt.keep}>
                {amount} it is
              </Button>
              {doubt.instead && (
                <Button
                  size="large"
                  type="primary"
                  onClick={() => {
                    if (doubt.instead) store(doubt.instead);
                  }}
                >
                  {doubt.instead} was meant
                </Button>
              )}
            </>
          )
        }
      >
        <p>{doubt && <Words>{doubt.question}</Words>}</p>
      </Modal>
    </>
  );
}

interface MovingProps extends MovesProps {
  step: Step;
  tryOn: TryOn;
  fromTape: FromTape | null;
  onChange: (tryOn: TryOn) => void;
}

const WENT = ["fine", "tight", "impossible"] as const;

/** Says so when the tape sends a reading that no field waits for. */
export function useNobodyWaits(fromTape: FromTape | null) {
  const { message } = App.useApp();
  const [first] = useState(fromTape?.number);
  const number = fromTape?.number;
  const reading = fromTape?.reading;
  useEffect(() => {
    if (number === undefined || number === first) return;
    void message.info(
      `The tape says ${reading ?? ""}, but no number is asked for here. It is not entered.`,
      6,
    );
  }, [first, number, reading, message]);
}

function MovingStep({ step, tryOn, fromTape, onChange, onBack, onNext }: MovingProps) {
  useNobodyWaits(fromTape);
  return (
    <>
      <div className="fitting-scroll">
        {step.hints.map((hint) => (
          <p key={hint} className="fitting-hint">
            {hint}
          </p>
        ))}
        {step.movements?.map((asked) => {
          const went = tryOn.movements?.find((t) => t.movement === asked.movement)?.went;
          return (
            <section key={asked.movement} className="movement">
              <h2>{asked.words}</h2>
              <p className="quiet">{asked.look}</p>
              <div className="sides" role="group" aria-label={asked.words}>
                {WENT.map((one) => (
                  <button
                    key={one}
                    type="button"
                    className={went === one ? "side chosen" : "side"}
                    aria-pressed={went === one}
                    onClick={() => {
                      const others = (tryOn.movements ?? []).filter((t) => t.movement !== asked.movement);
                      const next =
                        went === one ? others : [...others, { movement: asked.movement, went: one }];
                      onChange({ ...tryOn, movements: next });
                    }}
                  >
                    <strong>{one}</strong>
                  </button>
                ))}
              </div>
            </section>
          );
        })}
      </div>
      <Foot onBack={onBack} onNext={onNext} />
    </>
  );
}
