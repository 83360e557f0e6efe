import type { Check } from "../api/client";
import { Words } from "../drawing/Words";

const OUTCOMES = {
  stop: { mark: "✕", word: "Stop" },
  caution: { mark: "⚠", word: "Caution" },
  passes: { mark: "✓", word: "Passes" },
} as const;

/** Every check, the gravest first: figures, reason, and what would mend it. */
export function Checks({ checks }: { checks: Check[] }) {
  if (checks.length === 0) return <p className="quiet">Checks appear with the first pin.</p>;
  return (
    <ul className="checks">
      {checks.map((check) => {
        const { mark, word } = OUTCOMES[check.outcome];
        return (
          <li key={check.title} className={`check ${check.outcome}`} data-rule={check.rule}>
            <span className="check-mark" aria-hidden>
              {mark}
            </span>
            <div>
              <h3>
                {check.title} <small>{word}</small>
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
            </div>
          </li>
        );
      })}
    </ul>
  );
}
