import { Button } from "antd";
import type { CauseLine, LeadLine } from "../api/client";
import { Words } from "../drawing/Words";
import styles from "./book.module.css";

interface Props {
  causes: CauseLine[];
  /** Opens the change that a cause leads to; nothing where no garment is at hand. */
  onLead?: ((lead: LeadLine) => void) | undefined;
}

/** What a sign may come from, likeliest first: what to try, what tells one cause from another, and where it leads. */
export function SignCauses({ causes, onLead }: Props) {
  return (
    <ol className={styles["causes"]}>
      {causes.map((cause) => (
        <li key={cause.why}>
          <strong>{cause.why}</strong>
          <span>{cause.first}</span>
          <span className="quiet">
            {cause.spoken && <em className={styles[`speaks-${cause.speaks}`]}>{cause.spoken}: </em>}
            <Words>{cause.confirms}</Words>
          </span>
          {onLead && cause.lead && (
            <Button
              size="small"
              onClick={() => {
                if (cause.lead) onLead(cause.lead);
              }}
            >
              {cause.lead.says}
            </Button>
          )}
        </li>
      ))}
    </ol>
  );
}
