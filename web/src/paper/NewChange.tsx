import { Button, Select } from "antd";
import { useState } from "react";
import type { Pattern, PieceMay } from "../api/client";
import { LengthField } from "../document/LengthField";
import { useWords } from "../document/useWords";
import styles from "./paper.module.css";

type PieceChange = NonNullable<Pattern["changes"]>[number];
type What = "length" | "width" | "wedge" | "flare" | "allowance" | "end";

interface Props {
  may: PieceMay[];
  picked: number | null;
  onAdd: (change: PieceChange) => void;
}

/** One more thing done to a piece, with its figure. */
export function NewChange({ may, picked, onAdd }: Props) {
  const words = useWords();
  const [what, setWhat] = useState<What>("length");
  const [own, setOwn] = useState<number | null>(null);
  const [level, setLevel] = useState<PieceMay["levels"][number] | null>(null);
  const [edge, setEdge] = useState(0);
  const [end, setEnd] = useState<"upper" | "lower">("lower");
  const [face, setFace] = useState<PieceMay["key"]["face"] | "both">("both");
  const [at, setAt] = useState<"middle" | "side">("middle");
  const [by, setBy] = useState<string | null>(null);
  const place = own ?? picked ?? 0;
  const piece = may[place] ?? may[0];
  if (!piece) return null;
  const below = level && piece.levels.includes(level) ? level : piece.levels[0];
  const named = piece.edges[edge] ?? piece.edges[0];
  const change = (): PieceChange | null => {
    if (by === null) return null;
    const { key } = piece;
    switch (what) {
      case "length":
        return below ? { length: { part: key.part, face: face === "both" ? null : face, below, by } } : null;
      case "width":
        return { width: { piece: key, by } };
      case "wedge":
        return below ? { wedge: { piece: key, below, at, by } } : null;
      case "flare":
        return { flare: { piece: key, by } };
      case "allowance":
        return named ? { allowance: { piece: key, edge: named.name, width: by } } : null;
      case "end":
        return named ? { end: { piece: key, edge: named.name, upper: end === "upper", by } } : null;
    }
  };
  const made = change();
  return (
    <div className={styles["new-change"]} role="group" aria-label="Change a piece">
      <span>Make</span>
      <Select
        aria-label="Which piece"
        popupMatchSelectWidth={false}
        value={place}
        options={may.map((m, n) => ({ value: n, label: m.name }))}
        onChange={setOwn}
      />
      <Select<What>
        aria-label="What is done"
        popupMatchSelectWidth={false}
        value={what}
        options={words.options<What>("piece_does")}
        onChange={setWhat}
      />
      {(what === "length" || what === "wedge") && (
        <Select
          aria-label="Below which level"
          popupMatchSelectWidth={false}
          value={below ?? null}
          placeholder="no level crosses it"
          options={piece.levels.map((l) => ({ value: l, label: `below the ${words.of("level", l)}` }))}
          onChange={setLevel}
        />
      )}
      {what === "length" && (
        <Select<typeof face>
          aria-label="In front or behind"
          popupMatchSelectWidth={false}
          value={face}
          options={[
            { value: "both", label: "all of it" },
            ...words
              .options<PieceMay["key"]["face"]>("piece_face")
              .filter((o) => may.some((m) => m.key.part === piece.key.part && m.key.face === o.value))
              .map(({ value, label }) => ({ value, label: `${label} alone` })),
          ]}
          onChange={setFace}
        />
      )}
      {what === "wedge" && (
        <Select<"middle" | "side">
          aria-label="Where it opens"
          value={at}
          options={words.options<"middle" | "side">("opens_at")}
          onChange={setAt}
        />
      )}
      {(what === "allowance" || what === "end") && (
        <Select
          aria-label="Which edge"
          popupMatchSelectWidth={false}
          value={edge}
          options={piece.edges.map((e, n) => ({ value: n, label: e.words }))}
          onChange={setEdge}
        />
      )}
      {what === "end" && (
        <Select<"upper" | "lower">
          aria-label="Which end"
          value={end}
          options={[
            { value: "lower", label: "lower end" },
            { value: "upper", label: "upper end" },
          ]}
          onChange={setEnd}
        />
      )}
      <LengthField
        label={what === "allowance" ? "So wide, per edge" : "By so much; less than nought takes away"}
        placeholder={what === "allowance" ? "wide" : "1, or −1"}
        shown={by ?? ""}
        onRead={setBy}
        onEmpty={() => {
          setBy(null);
        }}
      />
      <Button
        type="primary"
        disabled={made === null}
        onClick={() => {
          if (made) onAdd(made);
          setBy(null);
        }}
      >
        Do it
      </Button>
    </div>
  );
}
