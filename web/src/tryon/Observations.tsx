import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Input, Modal, Select } from "antd";
import { useState } from "react";
import { v7 as newId } from "uuid";
import type { Garment, LeadLine, Observation, TryOn, Wearer } from "../api/client";
import { SignCauses } from "../book/SignCauses";
import { SignPicker } from "../book/SignPicker";
import { useSigns } from "../book/useSigns";
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
  wearer: Wearer;
  onChange: (tryOn: TryOn) => void;
  /** Opens the change that a sign leads to, to try; nothing where lines are not drawn. */
  onLead?: ((lead: LeadLine) => void) | undefined;
  /** For one thumb. */
  large?: boolean;
}

/** What the cloth did, where, and what is to be done about it. */
export function Observations({ tryOn, garment, wearer, onChange, onLead, large = false }: Props) {
  const [looking, setLooking] = useState(false);
  const words = useWords();
  const size = large ? "large" : "middle";
  const all = tryOn.observations ?? [];
  const signs = useSigns(
    wearer,
    garment,
    all.some((one) => one.sign),
  ).data?.places.flatMap((place) => place.signs);
  const note = (what: Pick<Observation, "seen" | "level" | "face" | "sign">) => {
    const fresh: Observation = { id: newId(), verdict: "fix_now", ...what };
    onChange({ ...tryOn, observations: [...all, fresh] });
  };
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
          {one.sign && <strong>{words.of("sign", one.sign)}</strong>}
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
          {one.sign && (
            <details className={styles["may-come-from"]} open={one === all.at(-1)}>
              <summary>What it may come from</summary>
              <SignCauses
                causes={signs?.find((sign) => sign.sign === one.sign)?.causes ?? []}
                onLead={onLead}
              />
            </details>
          )}
        </div>
      ))}
      <div className={styles["note-ways"]}>
        <Button
          size={size}
          icon={<PlusOutlined />}
          onClick={() => {
            setLooking(true);
          }}
        >
          What does the cloth say?
        </Button>
        <Button
          size={size}
          type="text"
          onClick={() => {
            note({ seen: "wrinkle", level: garment.levels[0]?.level ?? "waist", face: "front" });
          }}
        >
          Something else
        </Button>
      </div>
      <Modal
        title="What does the cloth say?"
        open={looking}
        footer={null}
        width={980}
        destroyOnHidden
        onCancel={() => {
          setLooking(false);
        }}
      >
        <SignPicker
          wearer={wearer}
          garment={garment}
          picked={null}
          onPick={({ sign, seen, level, face }) => {
            const there = garment.levels.some((l) => l.level === level);
            note({ sign, seen, level: there ? level : (garment.levels[0]?.level ?? level), face });
            setLooking(false);
          }}
        />
      </Modal>
    </div>
  );
}
