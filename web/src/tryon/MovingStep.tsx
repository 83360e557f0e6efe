import { clsx } from "clsx";
import type { MovementTest, Step, TryOn } from "../api/client";
import { useWords } from "../document/useWords";
import { Foot } from "./FittingFrame";
import { useNobodyWaits, type FromTape } from "./useFromTape";
import styles from "./fitting.module.css";

interface Props {
  onBack: () => void;
  onNext: () => void;
  step: Step;
  tryOn: TryOn;
  fromTape: FromTape | null;
  onChange: (tryOn: TryOn) => void;
}

/** Movements, each fine, tight or impossible. */
export function MovingStep({ step, tryOn, fromTape, onChange, onBack, onNext }: Props) {
  useNobodyWaits(fromTape);
  const words = useWords();
  return (
    <>
      <div className={styles["scroll"]}>
        {step.hints.map((hint) => (
          <p key={hint} className={styles["hint"]}>
            {hint}
          </p>
        ))}
        {step.movements?.map((asked) => {
          const went = tryOn.movements?.find((t) => t.movement === asked.movement)?.went;
          return (
            <section key={asked.movement} className={styles["movement"]}>
              <h2>{asked.words}</h2>
              <p className="quiet">{asked.look}</p>
              <div className={styles["sides"]} role="group" aria-label={asked.words}>
                {words.options<MovementTest["went"]>("went").map(({ value: one, label }) => (
                  <button
                    key={one}
                    type="button"
                    className={clsx(styles["side"], went === one && styles["chosen"])}
                    aria-pressed={went === one}
                    onClick={() => {
                      const others = (tryOn.movements ?? []).filter((t) => t.movement !== asked.movement);
                      const next =
                        went === one ? others : [...others, { movement: asked.movement, went: one }];
                      onChange({ ...tryOn, movements: next });
                    }}
                  >
                    <strong>{label}</strong>
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
