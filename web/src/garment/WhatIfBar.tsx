import { Button } from "antd";
import { useEffect, useRef } from "react";
import type { Check } from "../api/client";
import type { WhatIf } from "../document/useWhatIf";
import { useWords } from "../document/useWords";
import { Words } from "../drawing/Words";
import styles from "./lines.module.css";

interface Props {
  whatIf: WhatIf;
  /** What is to be mended, as it was before. */
  before: Check | null;
  /** The same as it is now; nothing where it is found no more. */
  after: Check | undefined;
}

/** Says that nothing of what is done now is stored, what it makes of a check, and what to do with it in the end. */
export function WhatIfBar({ whatIf, before, after }: Props) {
  const words = useWords();
  const bar = useRef<HTMLDivElement>(null);
  // What was done further down is seen here.
  useEffect(() => {
    if (before) bar.current?.scrollIntoView({ block: "nearest" });
  }, [before]);
  if (!whatIf.isOn) return null;
  const said = (check: Check) => (
    <>
      <Words>{check.figures}</Words> <em>{words.of("outcome", check.outcome)}</em>
    </>
  );
  return (
    <div ref={bar} className={styles["what-if"]} role="status">
      <p>
        <strong>What if?</strong> Nothing of this is stored until you keep it.
      </p>
      <Button type="primary" onClick={whatIf.keep}>
        Keep it
      </Button>
      <Button onClick={whatIf.drop}>Back to what is kept</Button>
      {before && (
        <dl className={styles["before-and-after"]}>
          <dt>{before.title}</dt>
          <dd>before: {said(before)}</dd>
          <dd>now: {after ? said(after) : <em>nothing is left to check</em>}</dd>
        </dl>
      )}
    </div>
  );
}
