import { Checkbox, Select } from "antd";
import { LengthField } from "../../document/LengthField";
import { useWords } from "../../document/useWords";
import type { Editing } from "../editors";
import changes from "../changes.module.css";

type SlitAt = NonNullable<Editing<"hem">["input"]["slit"]>["at"];

/** What stands for no slit. */
const USUAL = "usual";

/** A slit that is new, and the lining's own hem. */
export function SlitAndLining({ input, shows, complaint, onChange }: Editing<"hem">) {
  const words = useWords();
  if (!shows) return null;
  const { slit } = input;
  const lining = input.lining ?? {};
  return (
    <div className={changes["line-settings"]}>
      {input.hem === "body" && (
        <div>
          <span className={changes["label"]}>new slit</span>
          <Select<SlitAt | typeof USUAL>
            aria-label="Where a new slit is"
            options={[{ value: USUAL, label: "none" }, ...words.options<SlitAt>("slit_at")]}
            value={slit?.at ?? USUAL}
            popupMatchSelectWidth={false}
            onChange={(at) => {
              onChange({ slit: at === USUAL ? null : { height: shows.slit_usual, ...slit, at } });
            }}
          />
          {slit && (
            <>
              <LengthField
                label="How high the slit goes"
                shown={shows.slit_height?.text ?? slit.height}
                complaint={complaint("slit.height")}
                onRead={(height) => {
                  onChange({ slit: { ...slit, height } });
                }}
              />
              <span className="quiet">up from the new edge, wide there</span>
              <LengthField
                label="How wide the slit opens at the edge"
                shown={shows.slit_width?.text ?? ""}
                placeholder="a cut"
                complaint={complaint("slit.width")}
                onRead={(width) => {
                  onChange({ slit: { ...slit, width } });
                }}
                onEmpty={() => {
                  onChange({ slit: { ...slit, width: null } });
                }}
              />
            </>
          )}
        </div>
      )}
      {shows.lining && (
        <div>
          <span className={changes["label"]}>lining above the outer</span>
          <LengthField
            label="How far above the outer’s fold the lining ends"
            shown={shows.lining_above?.text ?? ""}
            placeholder="as usual"
            onRead={(above) => {
              onChange({ lining: { ...lining, above } });
            }}
            onEmpty={() => {
              onChange({ lining: { ...lining, above: null } });
            }}
          />
          <span className="quiet">slack</span>
          <LengthField
            label="How much slack the lining has"
            shown={shows.lining_slack?.text ?? ""}
            placeholder="as usual"
            onRead={(slack) => {
              onChange({ lining: { ...lining, slack } });
            }}
            onEmpty={() => {
              onChange({ lining: { ...lining, slack: null } });
            }}
          />
          <Checkbox
            checked={lining.free ?? false}
            onChange={({ target }) => {
              onChange({ lining: { ...lining, free: target.checked } });
            }}
          >
            hangs free
          </Checkbox>
          <Checkbox
            checked={lining.folded_up ?? false}
            onChange={({ target }) => {
              onChange({ lining: { ...lining, folded_up: target.checked } });
            }}
          >
            folded up, not cut
          </Checkbox>
        </div>
      )}
    </div>
  );
}
