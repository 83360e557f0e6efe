import { clsx } from "clsx";
import { useState } from "react";
import type { HemMark, HemPlace, Step, TryOn } from "../api/client";
import { useWords } from "../document/useWords";
import { Words } from "../drawing/Words";
import { useSettings } from "../settings";
import { markAt, withMark } from "../document/entries";
import { Foot } from "./FittingFrame";
import { measureOf, NOTHING, NumberPad, typedOf, type Typed } from "./NumberPad";
import type { FromTape } from "./useFromTape";
import styles from "./fitting.module.css";

interface Props {
  step: Step;
  places: HemPlace[];
  tryOn: TryOn;
  fromTape: FromTape | null;
  onChange: (tryOn: TryOn) => void;
  onBack: () => void;
  onNext: () => void;
}

/** A hem, place by place: marked, and read again standing upright. Both readings are kept. */
export function HemStep({ step, places, tryOn, fromTape, onChange, onBack, onNext }: Props) {
  const { tape } = useSettings();
  const words = useWords();
  const [which, setWhich] = useState(0);
  const place = places[which];
  const mark = place && markAt(tryOn, place);
  const [again, setAgain] = useState(false);
  const spot = `${which} ${again}`;
  const [pad, setPad] = useState<{ spot: string; typed: Typed } | null>(null);
  const [lastHow, setLastHow] = useState<HemMark["how"]>("turn_up");
  const how = mark?.how ?? lastHow;
  const there = (again ? mark?.again : mark?.amount) ?? undefined;
  const typed = pad?.spot === spot ? pad.typed : typedOf(there, tape);
  const amount = measureOf(typed, tape);
  const [taken, setTaken] = useState(fromTape?.number ?? 0);
  if (fromTape && fromTape.number !== taken) {
    setTaken(fromTape.number);
    setPad({ spot, typed: { ...NOTHING, sent: fromTape.reading } });
  }
  if (!place) return null;
  const forward = (isMarked: boolean) => {
    setPad(null);
    if (!again && place.is_read_upright && isMarked) {
      setAgain(true);
    } else if (which < places.length - 1) {
      setAgain(false);
      setWhich(which + 1);
    } else {
      onNext();
    }
  };
  const enter = () => {
    if (amount !== null && amount !== there) {
      const next = again && mark ? { how, amount: mark.amount, again: amount } : { how, amount };
      onChange(withMark(tryOn, place, next));
    }
    forward(amount !== null);
  };
  return (
    <>
      <div className={styles["scroll"]}>
        {again ? (
          <p className={styles["reminder"]} role="status">
            Stand up straight, look ahead, and read it again.
          </p>
        ) : (
          step.hints.map((hint) => (
            <p key={hint} className={styles["hint"]}>
              {hint}
            </p>
          ))
        )}
        <h2 className={styles["question"]}>{step.question}</h2>
        <div className={clsx(styles["sides"], styles["four"])} role="group" aria-label="Where around">
          {places.map((one, index) => {
            const marked = markAt(tryOn, one);
            return (
              <button
                key={one.words}
                type="button"
                className={clsx(styles["side"], index === which && styles["chosen"])}
                aria-pressed={index === which}
                onClick={() => {
                  setPad(null);
                  setAgain(false);
                  setWhich(index);
                }}
              >
                <strong>{one.words}</strong>
                <small>
                  <Words>
                    {marked
                      ? marked.again && marked.again !== marked.amount
                        ? `${marked.amount}, upright ${marked.again}`
                        : marked.amount
                      : "–"}
                  </Words>
                </small>
              </button>
            );
          })}
        </div>
        <div className={styles["chips"]} role="group" aria-label="How it is measured">
          {words.options<HemMark["how"]>("hem_how").map((one) => (
            <button
              key={one.value}
              type="button"
              className={clsx(styles["chip"], how === one.value && styles["chosen"])}
              aria-pressed={how === one.value}
              onClick={() => {
                setLastHow(one.value);
                if (mark) onChange(withMark(tryOn, place, { ...mark, how: one.value }));
              }}
            >
              {one.label}
            </button>
          ))}
        </div>
      </div>
      <output className={styles["number"]} aria-label="Typed">
        {amount ? <Words>{amount}</Words> : <span className="quiet">no mark here</span>}
      </output>
      <NumberPad
        tape={tape}
        typed={typed}
        onType={(next) => {
          setPad({ spot, typed: next });
        }}
      />
      <Foot
        onBack={
          again
            ? () => {
                setAgain(false);
              }
            : which > 0
              ? () => {
                  setWhich(which - 1);
                }
              : onBack
        }
        next={again ? "Read upright" : "Next"}
        onNext={enter}
      >
        {again && (
          <button
            type="button"
            className={clsx(styles["foot-key"], styles["small"])}
            onClick={() => {
              forward(true);
            }}
          >
            Not now
          </button>
        )}
      </Foot>
    </>
  );
}
