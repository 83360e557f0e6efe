import { App, Button, Input, Modal, Segmented, Select } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { answer, api, problemOf, type TryOn } from "../api/client";
import { useWords } from "../document/useWords";
import styles from "./tryon.module.css";

type Worn = NonNullable<TryOn["worn"]>;
type By = NonNullable<TryOn["pinned_by"]>;
type Shut = NonNullable<TryOn["shut"]>;

const TEXTS = [
  { field: "shoes", label: "Shoes", hint: "hems are marked in them" },
  { field: "layers", label: "Beneath it", hint: "a shirt, a jumper, nothing" },
  { field: "posture", label: "Posture", hint: "as one stands; bow arm raised" },
  { field: "conditions", label: "Anything else", hint: "" },
] as const;

interface Props {
  tryOn: TryOn;
  onChange: (tryOn: TryOn) => void;
  /** For one thumb. */
  large?: boolean;
}

/** How the garment is worn while it is pinned. */
export function Conditions({ tryOn, onChange, large = false }: Props) {
  const words = useWords();
  const [turning, setTurning] = useState<Worn | null>(null);
  const size = large ? "large" : "middle";
  const worn = tryOn.worn ?? "right_side_out";
  const { message } = App.useApp();
  const turn = async (to: Worn, meant: "sides_of_garment" | "sides_of_wearer" | null = null) => {
    const body = { try_on: tryOn, worn: to, meant };
    try {
      const turned = await answer(api.POST("/api/v1/turned", { body }));
      // Nothing where somebody must say first what the sides meant.
      setTurning(turned ? null : to);
      if (turned) onChange(turned);
    } catch (error) {
      void message.error(problemOf(error).detail);
    }
  };
  return (
    <div className={clsx(styles["conditions"], large && styles["large"])}>
      <label htmlFor="date">Day</label>
      <Input
        id="date"
        type="date"
        size={size}
        value={tryOn.date}
        onChange={(event) => {
          if (event.target.value) onChange({ ...tryOn, date: event.target.value });
        }}
      />
      <span id="worn">Worn</span>
      <Segmented<Worn>
        aria-labelledby="worn"
        block={large}
        size={size}
        options={words.options<Worn>("worn")}
        value={worn}
        onChange={(to) => {
          if (to !== worn) void turn(to);
        }}
      />
      <label htmlFor="by">Pinned by</label>
      <Select<By>
        id="by"
        size={size}
        options={words.options<By>("pinned_by")}
        value={tryOn.pinned_by ?? "self_in_mirror"}
        onChange={(pinned_by) => {
          onChange({ ...tryOn, pinned_by });
        }}
      />
      <label htmlFor="shut">Closure</label>
      <Select<Shut>
        id="shut"
        size={size}
        allowClear
        placeholder="not said"
        options={words.options<Shut>("shut")}
        value={tryOn.shut ?? null}
        onChange={(shut?: Shut) => {
          onChange({ ...tryOn, shut: shut ?? null });
        }}
      />
      {TEXTS.map(({ field, label, hint }) => (
        <Text
          key={`${field} ${tryOn[field] ?? ""}`}
          field={field}
          label={label}
          hint={hint}
          size={size}
          value={tryOn[field] ?? ""}
          onChange={(value) => {
            onChange({ ...tryOn, [field]: value });
          }}
        />
      ))}
      <Modal
        title={`It was ${words.of("worn", turning ?? "")}`}
        open={turning !== null}
        footer={null}
        onCancel={() => {
          setTurning(null);
        }}
      >
        <p>Sides were entered already. What did “left” mean when they were?</p>
        <div className={styles["turning"]}>
          <Button size="large" onClick={() => turning && void turn(turning, "sides_of_wearer")}>
            The wearer’s left: the pins move to the garment’s other side
          </Button>
          <Button size="large" onClick={() => turning && void turn(turning, "sides_of_garment")}>
            The garment’s left: the pins stay where they are
          </Button>
        </div>
      </Modal>
    </div>
  );
}

interface TextProps {
  field: string;
  label: string;
  hint: string;
  size: "large" | "middle";
  value: string;
  onChange: (value: string) => void;
}

function Text({ field, label, hint, size, value, onChange }: TextProps) {
  return (
    <>
      <label htmlFor={field}>{label}</label>
      <Input
        id={field}
        size={size}
        maxLength={2000}
        placeholder={hint}
        defaultValue={value}
        onBlur={(event) => {
          if (event.target.value !== value) onChange(event.target.value);
        }}
      />
    </>
  );
}
