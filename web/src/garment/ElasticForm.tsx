import { Button, InputNumber } from "antd";
import type { Complaint, ElasticPlan, SolvedElastic } from "../api/client";
import { Words } from "../drawing/Words";
import { LengthField } from "../kept/LengthField";

interface Props {
  plan: ElasticPlan | null;
  solved: SolvedElastic | null;
  complaint: (field: string) => Complaint | undefined;
  onChange: (plan: ElasticPlan | null) => void;
}

/** Elastic between two slits on the inside of the band: how long the casing runs, and what to cut for it. */
export function ElasticForm({ plan, solved, complaint, onChange }: Props) {
  return (
    <div className="elastic">
      <p className="quiet">
        For a little too much waist and no seam to take it: elastic is drawn into the back of the band,
        between two slits on its inside.
      </p>
      <div className="line-settings">
        <div>
          <span className="label">casing, from slit to slit</span>
          <LengthField
            label="Length of the casing"
            shown={solved?.casing.text ?? plan?.casing ?? ""}
            complaint={complaint("casing")}
            placeholder="42 cm"
            onRead={(casing) => {
              onChange({ ...plan, casing });
            }}
          />
        </div>
        {plan && solved && (
          <div>
            <span className="label">hold, stretched ÷ relaxed</span>
            <InputNumber
              aria-label="Hold in percent"
              min={solved.holds_percent[0] ?? 0}
              max={solved.holds_percent[1] ?? 0}
              suffix="%"
              value={solved.hold_percent}
              onChange={(hold) => {
                onChange({ ...plan, hold_percent: hold });
              }}
            />
          </div>
        )}
        {plan && (
          <Button
            onClick={() => {
              onChange(null);
            }}
          >
            No elastic
          </Button>
        )}
      </div>
      {solved?.cut && (
        <div className="elastic-result" role="status">
          <p>
            cut{" "}
            <strong className="figure">
              <Words>{solved.cut.text}</Words>
            </strong>{" "}
            of elastic, both anchors in it
          </p>
          <p className="quiet">
            <Words>{solved.sum}</Words>
          </p>
        </div>
      )}
    </div>
  );
}
