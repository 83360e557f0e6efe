import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Input, Select } from "antd";
import { v7 as newId } from "uuid";
import type { Garment, Observation, TryOn } from "../api/client";
import { useWords } from "../document/useWords";
import styles from "./tryon.module.css";

type Side = "left" | "right" | "both";
const SIDES: { value: Side; label: string }[] = [
  { value: "both", label: "both sides" },
  { value: "left", label: "garment’s left" },
  { value: "right", label: "garment’s right" },
];

interface Props {
  tryOn: TryOn;
  garment: Garment;
  onChange: (tryOn: TryOn) => void;
  /** For one thumb. */
  large?: boolean;
}

/** What the cloth did, where, and what is to be done about it. */
export function Observations({ tryOn, garment, onChange, large = false }: Props) {
  const words = useWords();
  const size = large ? "large" : "middle";
  const all = tryOn.observations ?? [];
  const levels = garment.levels.map((l) => ({ value: l.level, label: words.of("level", l.level) }));
  const set = (id: string, to: Partial<Observation>) => {
    onChange({ ...tryOn, observations: all.map((o) => (o.id === id ? { ...o, ...to } : o)) });
  };
  return (
    <div className={styles["observations"]}>
      {all.length === 0 && (
        <p className="quiet">Nothing noted. Wrinkles, gapes and strains say where the next pin belongs.</p>
      )}
      {all.map((one) => (
        <div key={one.id} className={styles["observation"]}>
          <Select
            aria-label="What"
            size={size}
            options={words.options<Observation["seen"]>("seen")}
            value={one.seen}
            onChange={(seen) => {
              set(one.id, { seen });
            }}
          />
          <Select
            aria-label="At which level"
            size={size}
            options={levels}
            value={one.level}
            onChange={(level) => {
              set(one.id, { level });
            }}
          />
          <Select
            aria-label="Seen from"
            size={size}
            options={words.options<Observation["face"]>("face")}
            value={one.face}
            onChange={(face) => {
              set(one.id, { face });
            }}
          />
          <Select<Side>
            aria-label="On which side"
            size={size}
            options={SIDES}
            value={one.side ?? "both"}
            onChange={(side) => {
              set(one.id, { side: side === "both" ? null : side });
            }}
          />
          <Select
            aria-label="What to do about it"
            size={size}
            options={words.options<Observation["verdict"]>("verdict")}
            value={one.verdict}
            onChange={(verdict) => {
              set(one.id, { verdict });
            }}
          />
          <Button
            type="text"
            size={size}
            aria-label="Take it out"
            icon={<DeleteOutlined />}
            onClick={() => {
              onChange({ ...tryOn, observations: all.filter((o) => o.id !== one.id) });
            }}
          />
          <Input
            key={one.words}
            size={size}
            aria-label="In your words"
            placeholder="in your words"
            maxLength={2000}
            defaultValue={one.words}
            onBlur={(event) => {
              if (event.target.value !== (one.words ?? "")) set(one.id, { words: event.target.value });
            }}
          />
        </div>
      ))}
      <Button
        size={size}
        icon={<PlusOutlined />}
        onClick={() => {
          const level = garment.levels[0]?.level ?? "waist";
          const fresh: Observation = {
            id: newId(),
            seen: "wrinkle",
            level,
            face: "front",
            verdict: "fix_now",
          };
          onChange({ ...tryOn, observations: [...all, fresh] });
        }}
      >
        Note something
      </Button>
    </div>
  );
}
