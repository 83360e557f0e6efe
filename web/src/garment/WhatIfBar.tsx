import { Button } from "antd";
import type { WhatIf } from "../document/useWhatIf";
import styles from "./lines.module.css";

/** Says that nothing of what is done now is stored, and what to do with it in the end. */
export function WhatIfBar({ whatIf }: { whatIf: WhatIf }) {
  if (!whatIf.isOn) return null;
  return (
    <div className={styles["what-if"]} role="status">
      <p>
        <strong>What if?</strong> Nothing of this is stored until you keep it.
      </p>
      <Button type="primary" onClick={whatIf.keep}>
        Keep it
      </Button>
      <Button onClick={whatIf.drop}>Back to what is kept</Button>
    </div>
  );
}
