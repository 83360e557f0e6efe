import { Checkbox, Input, InputNumber, Segmented, Select } from "antd";
import { clsx } from "clsx";
import type { Complaint, Field } from "../api/client";
import { PictureView } from "../drawing/PictureView";
import { Words } from "../drawing/Words";
import { LengthField } from "../document/LengthField";
import styles from "./lookover.module.css";

interface Props {
  field: Field;
  /** What the question is about, for those who cannot see it beside the field. */
  title: string;
  /** What the garment holds there now. */
  raw: unknown;
  complaint: Complaint | undefined;
  onSet: (path: string, value: unknown) => void;
}

type Choice = Extract<Field, { is: "choice" }>["options"][number];
type Width = { laid_flat: string } | { girth: string };

/** A field of the look-over, by what can be entered. */
export function FieldInput({ field, title, raw, complaint, onSet }: Props) {
  const label = field.label ? `${title}: ${field.label}` : title;
  switch (field.is) {
    case "length":
      return (
        <Labelled label={field.label}>
          <LengthField
            label={label}
            shown={field.shown?.text ?? ""}
            complaint={complaint}
            onRead={(measure) => {
              onSet(field.path, measure);
            }}
            {...(field.may_be_empty
              ? {
                  onEmpty: () => {
                    onSet(field.path, undefined);
                  },
                }
              : {})}
          />
        </Labelled>
      );
    case "width": {
      const width = raw as Width;
      const measure = "laid_flat" in width ? width.laid_flat : width.girth;
      const as = (flat: boolean, text: string): Width => (flat ? { laid_flat: text } : { girth: text });
      return (
        <Labelled label={field.label}>
          <div className={styles["width-field"]}>
            <LengthField
              label={label}
              shown={field.shown.text}
              complaint={complaint}
              onRead={(text) => {
                onSet(field.path, as(field.laid_flat, text));
              }}
            />
            <Segmented
              size="small"
              aria-label={`${title}: how it was measured`}
              options={[
                { value: "flat", label: "laid flat" },
                { value: "round", label: "all round" },
              ]}
              value={field.laid_flat ? "flat" : "round"}
              onChange={(value) => {
                onSet(field.path, as(value === "flat", measure));
              }}
            />
            {field.laid_flat && (
              <small className="quiet figure">
                <Words>{field.girth}</Words> round
              </small>
            )}
          </div>
        </Labelled>
      );
    }
    case "choice":
      return (
        <Labelled label={field.label}>
          <Select<string>
            aria-label={label}
            placeholder="not known yet"
            value={field.value ?? null}
            popupMatchSelectWidth={false}
            options={field.options.map((o) => ({ value: o.value, label: o.words }))}
            optionRender={(option) => {
              const picture: Choice["picture"] = field.options.find((o) => o.value === option.value)?.picture;
              return (
                <span className={styles["pictured"]}>
                  {picture && <PictureView picture={picture} />}
                  {option.label}
                </span>
              );
            }}
            onChange={(value) => {
              onSet(field.path, value);
            }}
          />
          <ChosenPicture field={field} />
        </Labelled>
      );
    case "several":
      return (
        <Labelled label={field.label}>
          <Select<string[]>
            mode="multiple"
            aria-label={label}
            placeholder="none"
            value={field.values}
            popupMatchSelectWidth={false}
            className={clsx(styles["several"])}
            options={field.options.map((o) => ({ value: o.value, label: o.words }))}
            onChange={(values) => {
              onSet(field.path, values);
            }}
          />
        </Labelled>
      );
    case "yes_no":
      return field.label ? (
        <Checkbox
          aria-label={label}
          checked={field.value ?? false}
          onChange={(event) => {
            onSet(field.path, event.target.checked);
          }}
        >
          {field.label}
        </Checkbox>
      ) : (
        <Segmented<string>
          aria-label={label}
          options={[
            { value: "yes", label: "yes" },
            { value: "no", label: "no" },
            { value: "unknown", label: "not known" },
          ]}
          value={field.value === null || field.value === undefined ? "unknown" : field.value ? "yes" : "no"}
          onChange={(value) => {
            onSet(field.path, value === "unknown" ? undefined : value === "yes");
          }}
        />
      );
    case "count":
      return (
        <Labelled label={field.label}>
          <InputNumber
            aria-label={label}
            min={0}
            max={99}
            precision={0}
            value={field.value}
            onChange={(value) => {
              if (value !== null) onSet(field.path, value);
            }}
          />
        </Labelled>
      );
    case "text":
      return (
        <Input.TextArea
          key={field.value}
          aria-label={label}
          autoSize={{ minRows: 1, maxRows: 5 }}
          maxLength={2000}
          defaultValue={field.value}
          onBlur={(event) => {
            if (event.target.value !== field.value) onSet(field.path, event.target.value);
          }}
        />
      );
  }
}

function Labelled({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className={styles["labelled"]}>
      {label && <span className={styles["label"]}>{label}</span>}
      {children}
    </div>
  );
}

/** How what was chosen looks, cut through. */
function ChosenPicture({ field }: { field: Extract<Field, { is: "choice" }> }) {
  const picture = field.options.find((o) => o.value === field.value)?.picture;
  return picture ? <PictureView picture={picture} label="Cut through" /> : null;
}
