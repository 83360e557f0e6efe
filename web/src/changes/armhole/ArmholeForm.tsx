import { Button } from "antd";
import type { SolvedArmhole } from "../../api/client";
import { LengthField } from "../../document/LengthField";
import { useWords } from "../../document/useWords";
import { PictureView } from "../../drawing/PictureView";
import { Words } from "../../drawing/Words";
import type { Editing } from "../editors";
import styles from "./armhole.module.css";

type Field = Exclude<keyof Editing<"armhole">["input"], "at">;

/** What is asked, in the order in which it is read on the body; and what stands there while it is empty, where that is not "not". */
const ASKED: { title: string; fields: Field[] }[] = [
  { title: "Read on the body", fields: ["hinge", "cap"] },
  { title: "The shoulder", fields: ["shorten", "slope", "forward", "pads_out", "gape"] },
  { title: "The armhole", fields: ["raise", "front_in", "back_in"] },
  { title: "The sleeve", fields: ["widen", "widen_elbow", "cap_ease", "pitch"] },
];
const EMPTY: { [F in Field]?: string } = {
  hinge: "as usual",
  cap: "not measured",
  widen_elbow: "runs out there",
  cap_ease: "keeps its edge",
};

/** An armhole and its sleeve: what is read on the body, and what armhole, cap and arm come to. */
export function ArmholeForm({ input, shows, complaint, onChange, onRemove }: Editing<"armhole">) {
  const words = useWords();
  const asked = ASKED.map(({ title, fields }) => ({
    title,
    fields: fields.filter((field) => shows?.asks.includes(field) ?? true),
  }));
  const isBegun = ASKED.some(({ fields }) => fields.some((field) => input[field] != null));
  return (
    <div className={styles["armhole"]}>
      {shows && <Result shows={shows} />}
      {asked
        .filter(({ fields }) => fields.length > 0)
        .map(({ title, fields }) => (
          <fieldset key={title} className={styles["asked"]}>
            <legend>{title}</legend>
            <div className={styles["fields"]}>
              {fields.map((field) => (
                <div key={field}>
                  <span className={styles["label"]}>{words.of("armhole_field", field)}</span>
                  <LengthField
                    label={words.of("armhole_field", field)}
                    shown={shows?.typed.find((t) => t.field === field)?.figure.text ?? input[field] ?? ""}
                    complaint={complaint(field)}
                    placeholder={EMPTY[field] ?? "not"}
                    onRead={(length) => {
                      onChange({ [field]: length });
                    }}
                    onEmpty={() => {
                      onChange({ [field]: null });
                    }}
                  />
                </div>
              ))}
            </div>
          </fieldset>
        ))}
      {isBegun && <Button onClick={onRemove}>Leave all of it as it is</Button>}
    </div>
  );
}

function Result({ shows }: { shows: SolvedArmhole }) {
  return (
    <>
      {shows.lift && (
        <p role="status" className={styles["lift"]}>
          {shows.lift} <small className="quiet">{shows.leaves_out}</small>
        </p>
      )}
      <figure className={styles["flat"]}>
        <PictureView
          picture={shows.picture}
          label="The armhole, and the cap of the sleeve beside it, laid flat: as they are and as they will be"
        />
        <figcaption className="quiet">
          armhole, front and back{shows.has_sleeve && "; cap of the sleeve"} · dashes as they are, solid as
          they will be
        </figcaption>
      </figure>
      <table className={styles["now-and-then"]}>
        <thead>
          <tr>
            <td />
            <th scope="col">now</th>
            <th scope="col">then</th>
          </tr>
        </thead>
        <tbody>
          {shows.lines.map((line) => (
            <tr key={line.name} className={line.now === line.then ? "quiet" : undefined}>
              <th scope="row">{line.name}</th>
              <td>
                <Words>{line.now}</Words>
              </td>
              <td>
                <Words>{line.then}</Words>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {shows.ease_goes && (
        <p className="quiet">
          <Words>{shows.ease_goes}</Words>
        </p>
      )}
    </>
  );
}
