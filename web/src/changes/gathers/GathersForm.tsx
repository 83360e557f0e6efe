import { Button, InputNumber, Select } from "antd";
import { LengthField } from "../../document/LengthField";
import { useWords } from "../../document/useWords";
import { Words } from "../../drawing/Words";
import type { Editing } from "../editors";
import { PleatedEdge } from "./PleatedEdge";
import changes from "../changes.module.css";
import styles from "./gathers.module.css";

type How = NonNullable<Editing<"gathers">["input"]["how"]>;
type Field = "long" | "short" | "depth";

/** An edge that is longer than what it is sewn to: how it is taken together, and how much each pleat takes. */
export function GathersForm({ input, shows, complaint, onChange, onRemove }: Editing<"gathers">) {
  const words = useWords();
  const how = input.how ?? "gathers";
  const field = (of: Field, label: string, shown: string, placeholder: string) => (
    <div>
      <span className={changes["label"]}>{label}</span>
      <LengthField
        label={label}
        shown={shown}
        complaint={complaint(of)}
        placeholder={placeholder}
        onRead={(length) => {
          onChange({ [of]: length });
        }}
        onEmpty={() => {
          onChange({ [of]: null });
        }}
      />
    </div>
  );
  return (
    <div className={styles["gathers"]}>
      {shows?.sum && (
        <>
          <p className={styles["result"]} role="status">
            <strong className="figure">
              <Words>{shows.pleats ?? words.of("gather_how", how)}</Words>
            </strong>
          </p>
          <p className="quiet">
            <Words>{shows.sum}</Words>
          </p>
          <PleatedEdge shows={shows} name={`The long edge laid flat: ${shows.pleats ?? shows.sum}`} />
        </>
      )}
      <div className={changes["line-settings"]}>
        {field("long", "long edge", shows?.long?.text ?? input.long ?? "", "150 cm")}
        {field(
          "short",
          "brought to",
          input.short ? (shows?.short?.text ?? input.short) : "",
          shows?.short?.text ?? "as it will be",
        )}
        <div>
          <span className={changes["label"]}>taken together</span>
          <Select<How>
            aria-label="How it is taken together"
            options={words.options<How>("gather_how")}
            value={how}
            popupMatchSelectWidth={false}
            onChange={(next) => {
              onChange({ how: next });
            }}
          />
        </div>
        {how !== "gathers" && (
          <>
            {field("depth", "about so deep", shows?.depth?.text ?? input.depth ?? "", "as usual")}
            <div>
              <span className={changes["label"]}>how many</span>
              <InputNumber
                aria-label="How many pleats"
                min={1}
                max={120}
                placeholder="by depth"
                value={input.count ?? null}
                onChange={(count) => {
                  onChange({ count });
                }}
              />
            </div>
          </>
        )}
        {input.long && <Button onClick={onRemove}>No gathers</Button>}
      </div>
    </div>
  );
}
