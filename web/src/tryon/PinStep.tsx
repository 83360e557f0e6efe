import { Button, Modal } from "antd";
import { clsx } from "clsx";
import { useMemo, useState } from "react";
import type { AskedNow, Document, PinPlace, Reading, Step, TryOn } from "../api/client";
import { Words } from "../drawing/Words";
import { useWords } from "../document/useWords";
import type { useStand } from "../document/useDerived";
import { changeAt, lineOf, readingsOf } from "../document/changes";
import { useSolved } from "../document/useSolved";
import type { Kept } from "../document/useKept";
import { useSettings } from "../settings";
import { pinAt, withLeftOut, withoutPin, withPin } from "../document/entries";
import { Foot } from "./FittingFrame";
import { measureOf, NOTHING, NumberPad, typedOf, type Typed } from "./NumberPad";
import { PlacePicture } from "./PlacePicture";
import { ask } from "../document/useAsking";
import type { FromTape } from "./useFromTape";
import styles from "./fitting.module.css";

interface Props {
  onBack: () => void;
  onNext: () => void;
  /** Whoever pins alone pins one side, and copies it. */
  oneSide: boolean;
  step: Step;
  places: PinPlace[];
  garment: Document;
  before: TryOn | undefined;
  kept: Kept<TryOn>;
  stand: ReturnType<typeof useStand>;
  fromTape: FromTape | null;
  onAsked: (asked: AskedNow) => void;
}

interface Doubt {
  question: string;
  instead: string | null;
  keep: () => void;
}

/** The pins of one place: which seam, which side, how measured, how much. */
export function PinStep({
  step,
  places,
  garment,
  before,
  kept,
  stand,
  fromTape,
  onAsked,
  oneSide,
  onBack,
  onNext,
}: Props) {
  const { tape } = useSettings();
  const words = useWords();
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
  const { solved, problem } = useSolved(garment, shown, tape);
  const [taken, setTaken] = useState(fromTape?.number ?? 0);
  const type = (next: Typed, nextHow = how) => {
    setPad({ spot, typed: next, how: nextHow });
    if (!place || !side) return;
    const now = measureOf(next, tape) ?? "–";
    onAsked({ step: step.key, change: place.change, side: side.side, typed: now });
  };
  if (fromTape && fromTape.number !== taken) {
    setTaken(fromTape.number);
    setPad({ spot, typed: { ...NOTHING, sent: fromTape.reading }, how });
  }
  if (!place || !side) return null;

  const forward = () => {
    const isLast = oneSide || which >= place.sides.length - 1;
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
  // What is typed is solved as it is typed; what is there already was solved before.
  const index = readingsOf(changeAt(shown, place.change)).findIndex(
    (r) => r.id === pinAt(shown, place, side)?.id,
  );
  const solvedChange = solved?.try_ons[0]?.changes.find((change) => change.key === place.change);
  const figures = (solvedChange && lineOf(solvedChange)?.pins[index]) ?? (isNew ? undefined : side.pin);
  const level = solved?.try_ons[0]?.levels.find((l) => l.level === place.level);
  return (
    <>
      <div className={styles["scroll"]}>
        <div className={styles["place"]}>
          <PlacePicture stand={stand} side={side} />
          <div className={styles["figures"]} aria-live="polite">
            {step.hints.map((hint) => (
              <p key={hint} className={styles["hint"]}>
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
                  <dt>per edge</dt>
                  <dd>
                    <Words>{figures.edges}</Words>
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
                <dt>{words.of("level", level.level)} will measure, round</dt>
                <dd>
                  <Words>{level.after.text}</Words>
                </dd>
              </dl>
            )}
          </div>
        </div>
        <div className={styles["chips"]} role="group" aria-label="Which seam">
          {places.map((one, index) => (
            <button
              key={one.name}
              type="button"
              className={clsx(styles["chip"], one === place && styles["chosen"])}
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
        <p className={styles["at"]}>
          <Words>{place.at_words}</Words>
        </p>
        {place.sides.length > 1 && (
          <div className={styles["sides"]} role="group" aria-label="Which side">
            {place.sides.map((one, index) => {
              const pinned = pinAt(tryOn, place, one);
              return (
                <button
                  key={one.side}
                  type="button"
                  className={clsx(styles["side"], one === side && styles["chosen"])}
                  aria-pressed={one === side}
                  aria-label={one.words}
                  onClick={() => {
                    setWhich(index);
                  }}
                >
                  <strong>{one.seen_words}</strong>
                  <small>
                    {one.stored_words}
                    {pinned
                      ? ` · ${pinned.amount}`
                      : one.left_out
                        ? ` · ${words.of("why", one.left_out)}`
                        : ""}
                  </small>
                </button>
              );
            })}
          </div>
        )}
        <div className={styles["chips"]} role="group" aria-label="How it was measured">
          {place.hows.map((one) => (
            <button
              key={one.how}
              type="button"
              title={one.says}
              className={clsx(styles["chip"], how === one.how && styles["chosen"])}
              aria-pressed={how === one.how}
              onClick={() => {
                type(typed, one.how);
              }}
            >
              {one.short}
            </button>
          ))}
        </div>
      </div>
      <output className={styles["number"]} aria-label="Typed">
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
        {place.may_be_left_out && (
          <>
            <button
              type="button"
              className={clsx(styles["foot-key"], styles["small"])}
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
                className={clsx(styles["foot-key"], styles["small"])}
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
