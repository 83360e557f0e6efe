import { Button, Input, type InputRef } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import type { ChangeKey, Check, FindingKey } from "../api/client";
import { nameOf } from "../document/findings";
import { useWords } from "../document/useWords";
import { Explained } from "../drawing/Explained";
import { Words } from "../drawing/Words";
import styles from "./lines.module.css";

const MARKS = { stop: "✕", caution: "⚠", passes: "✓" } as const;

interface Props {
  checks: Check[];
  /** Passes over a check with a word why; takes that back without one. */
  onPassOver: (finding: FindingKey, why: string | null) => void;
  /** Tries out the changes that mend it. */
  onMend: (check: Check) => void;
  /** The change that is open, and how another is opened. */
  picked: ChangeKey;
  onPick: (key: ChangeKey) => void;
}

/** What needs a decision, the gravest first, open; what was passed over and what passes, each in one line that can be opened. */
export function Checks({ checks, ...rest }: Props) {
  if (checks.length === 0) return <p className="quiet">Checks appear with the first pin.</p>;
  const passing = checks.filter((check) => check.outcome === "passes");
  const passedOver = checks.filter((check) => check.outcome !== "passes" && check.passed_over);
  const open = checks.filter((check) => check.outcome !== "passes" && !check.passed_over);
  return (
    <>
      {open.length > 0 && <CheckList checks={open} {...rest} />}
      <Folded mark="–" words={`${passedOver.length} passed over`} checks={passedOver} {...rest} />
      <Folded
        mark={MARKS.passes}
        words={`${passing.length} ${passing.length === 1 ? "passes" : "pass"}`}
        checks={passing}
        {...rest}
      />
    </>
  );
}

/** Checks behind one line that opens them. */
function Folded({ mark, words, checks, ...rest }: Props & { mark: string; words: string }) {
  if (checks.length === 0) return null;
  return (
    <details className={styles["folded"]}>
      <summary>
        <span aria-hidden>{mark}</span> {words}
      </summary>
      <CheckList checks={checks} {...rest} />
    </details>
  );
}

function CheckList({ checks, onPassOver, onMend, picked, onPick }: Props) {
  const words = useWords();
  return (
    <ul className={styles["checks"]}>
      {checks.map((check) => {
        const of = check.key.change;
        return (
          <li
            key={nameOf(check.key)}
            className={clsx(
              styles["check"],
              styles[check.outcome],
              check.passed_over && styles["passed-over"],
            )}
            data-rule={check.key.rule}
          >
            <span className={styles["check-mark"]} aria-hidden>
              {MARKS[check.outcome]}
            </span>
            <div>
              <h3>
                {check.title}{" "}
                <small className={styles["check-outcome"]}>{words.of("outcome", check.outcome)}</small>
              </h3>
              <p>
                <Words>{check.figures}</Words>
              </p>
              <p className="quiet">
                <Explained>{check.reason}</Explained>{" "}
                {check.remedy && (
                  <strong>
                    <Words>{check.remedy}</Words>
                  </strong>
                )}
              </p>
              {check.outcome !== "passes" && (
                <div className={styles["ways-out"]}>
                  {(check.mend?.length ?? 0) > 0 && !check.passed_over && (
                    <Button
                      size="small"
                      aria-label={`Do it: ${check.title}`}
                      onClick={() => {
                        onMend(check);
                      }}
                    >
                      Do it
                    </Button>
                  )}
                  {of && of !== picked && (
                    <Button
                      size="small"
                      type="link"
                      aria-label={`Open what it is about: ${check.title}`}
                      onClick={() => {
                        onPick(of);
                      }}
                    >
                      Open it
                    </Button>
                  )}
                  <PassOver check={check} onPassOver={onPassOver} />
                </div>
              )}
            </div>
          </li>
        );
      })}
    </ul>
  );
}

/** What was asked for by a click is where one types next. */
const focused = (field: InputRef | null) => field?.focus();

function PassOver({ check, onPassOver }: { check: Check } & Pick<Props, "onPassOver">) {
  const [why, setWhy] = useState<string | null>(null);
  if (check.passed_over) {
    return (
      <p className={styles["pass-over"]}>
        Passed over: “{check.passed_over}”{" "}
        <Button
          size="small"
          type="link"
          onClick={() => {
            onPassOver(check.key, null);
          }}
        >
          take that back
        </Button>
      </p>
    );
  }
  if (why === null) {
    return (
      <Button
        size="small"
        type="link"
        className={clsx(styles["pass-over"])}
        aria-label={`Pass over: ${check.title}`}
        onClick={() => {
          setWhy("");
        }}
      >
        Pass over it …
      </Button>
    );
  }
  return (
    <form
      className={styles["pass-over"]}
      onSubmit={(event) => {
        event.preventDefault();
        if (why.trim()) onPassOver(check.key, why.trim());
        setWhy(null);
      }}
    >
      <Input
        ref={focused}
        size="small"
        aria-label={`Why ${check.title} is passed over`}
        placeholder="a word why; it is kept"
        maxLength={200}
        value={why}
        onChange={(event) => {
          setWhy(event.target.value);
        }}
      />
      <Button size="small" htmlType="submit" disabled={!why.trim()}>
        Pass over
      </Button>
    </form>
  );
}
