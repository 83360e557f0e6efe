import { clsx } from "clsx";
import { Words } from "../drawing/Words";
import type { Tape } from "../api/client";
import styles from "./fitting.module.css";

/** What is typed: whole digits with a point, and a fraction of an inch by itself. */
export interface Typed {
  digits: string;
  fraction: string;
  /** Sent by the digital tape, exact and in its own unit. */
  sent?: string;
}

export const NOTHING: Typed = { digits: "", fraction: "" };

const EIGHTHS = ["1/8", "1/4", "3/8", "1/2", "5/8", "3/4", "7/8"];
const SIXTEENTHS = ["1/16", "3/16", "5/16", "7/16", "9/16", "11/16", "13/16", "15/16"];

/** What is typed, as documents hold a length; null while it is none. */
export function measureOf(typed: Typed, tape: Tape): string | null {
  if (typed.sent) return typed.sent;
  const { digits, fraction } = typed;
  if (digits.replace(".", "") === "" && fraction === "") return null;
  if (tape.startsWith("in")) return `${[digits, fraction].filter(Boolean).join(" ")} in`;
  return `${digits.replace(/\.$/, "").replace(/^\./, "0.")} cm`;
}

/** What is on the pad for a length that is there already, on this tape. */
export function typedOf(measure: string | undefined, tape: Tape): Typed {
  if (!measure) return NOTHING;
  const [, text = "", unit = ""] = /^(.*) (mm|cm|in)$/.exec(measure) ?? [];
  if (unit === "in" && tape.startsWith("in")) {
    const [first = "", second = ""] = text.split(" ");
    if (first.includes("/")) return { digits: "", fraction: first };
    if (!first.includes(".")) return { digits: first, fraction: second };
  }
  if (unit === "cm" && !tape.startsWith("in")) return { digits: text, fraction: "" };
  return { ...NOTHING, sent: measure };
}

interface Props {
  tape: Tape;
  typed: Typed;
  onType: (typed: Typed) => void;
}

/** A number pad for one thumb, with the marks of the tape as keys. */
export function NumberPad({ tape, typed, onType }: Props) {
  const inches = tape.startsWith("in");
  const digit = (sign: string) => {
    const { digits } = typed.sent ? NOTHING : typed;
    if (sign === "." && (digits.includes(".") || inches)) return;
    const [whole = "", rest] = digits.split(".");
    // More than a metre, or finer than the tape: nobody pins that.
    if (sign !== "." && (rest === undefined ? whole.length >= 3 : rest.length >= 1)) return;
    onType({ digits: digits === "0" && sign !== "." ? sign : digits + sign, fraction: typed.fraction });
  };
  const back = () => {
    if (typed.sent) onType(NOTHING);
    else if (typed.fraction) onType({ ...typed, fraction: "" });
    else onType({ ...typed, digits: typed.digits.slice(0, -1) });
  };
  const key = (sign: string, label = sign) => (
    <button
      key={sign}
      type="button"
      className={styles["pad-key"]}
      aria-label={label}
      onClick={() => {
        digit(sign);
      }}
    >
      {sign}
    </button>
  );
  const fractions = tape === "in_sixteenths" ? [...EIGHTHS, ...SIXTEENTHS] : inches ? EIGHTHS : [];
  return (
    <div className={clsx(styles["pad"], inches && styles["inches"])} role="group" aria-label="Number pad">
      <div className={styles["pad-digits"]}>
        {["7", "8", "9", "4", "5", "6", "1", "2", "3"].map((sign) => key(sign))}
        {inches ? <span /> : key(".", "point")}
        {key("0")}
        <button type="button" className={styles["pad-key"]} aria-label="Delete the last" onClick={back}>
          ⌫
        </button>
      </div>
      {inches && (
        <div className={clsx(styles["pad-fractions"], tape === "in_sixteenths" && styles["fine"])}>
          {fractions.map((fraction) => (
            <button
              key={fraction}
              type="button"
              className={clsx(styles["pad-key"], typed.fraction === fraction && styles["chosen"])}
              aria-label={fraction}
              aria-pressed={typed.fraction === fraction}
              onClick={() => {
                const { digits } = typed.sent ? NOTHING : typed;
                onType({ digits, fraction: typed.fraction === fraction ? "" : fraction });
              }}
            >
              <Words>{fraction}</Words>
            </button>
          ))}
        </div>
      )}
    </div>
  );
}
