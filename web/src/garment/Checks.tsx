import { Button, Input, type InputRef } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import type { Check, FindingKey } from "../api/client";
import { nameOf } from "../document/findings";
import { useWords } from "../document/useWords";
import { Words } from "../drawing/Words";
import styles from "./lines.module.css";

const MARKS = { stop: "✕", caution: "⚠", passes: "✓" } as const;

interface Props {
  checks: Check[];
  /** Passes over a check with a word why; takes that back without one. */
  onPassOver: (finding: FindingKey, why: string | null) => void;
}

/** Every check, the gravest first: figures, reason, and what would mend it. */
export function Checks({ checks, onPassOver }: Props) {
  const words = useWords();
  if (checks.length === 0) return <p className="quiet">Checks appear with the first pin.</p>;
  return (
    <ul className={styles["checks"]}>
      {checks.map((check) => {
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
                <Words>{check.reason}</Words>{" "}
                {check.remedy && (
                  <strong>
                    <Words>{check.remedy}</Words>
                  </strong>
                )}
              </p>
              {check.outcome !== "passes" && <PassOver check={check} onPassOver={onPassOver} />}
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
