import { Button, Select } from "antd";
import { useState } from "react";
import type { Pattern, PieceMay } from "../api/client";
import { LengthField } from "../document/LengthField";
import { useWords } from "../document/useWords";
import styles from "./paper.module.css";

type PieceChange = NonNullable<Pattern["changes"]>[number];
type What = PieceMay["does"][number];
/** A place on the outline as it is typed. */
interface Typed {
  edge: number;
  at: string | null;
}
const NOWHERE: Typed = { edge: 0, at: null };
/** A figure that was left out. */
const NOUGHT = "0 cm";

/** What the last figure is, where it is none that is added or taken away. */
const FIGURE: Partial<Record<What, string>> = {
  allowance: "So wide, per edge",
  turn_dart: "Kept of the dart where it is",
  neckline: "Lower in the middle; less than nought is higher",
  facing: "So wide",
  pocket: "So deep, along the side",
};
const PLACEHOLDER: Partial<Record<What, string>> = {
  allowance: "",
  turn_dart: "0",
  neckline: "0",
  facing: "",
  pocket: "",
};
/** The same of a second one. */
const SECOND: Partial<Record<What, string>> = {
  neckline: "Wider at the shoulder; less than nought is narrower",
  pocket: "So wide, along the waist; extended to the middle when nothing is said",
};
const SECOND_PLACEHOLDER: Partial<Record<What, string>> = {
  neckline: "0",
  pocket: "to the middle",
};
/** What stands before a figure. */
const BEFORE: Partial<Record<What, [string, string?]>> = {
  allowance: ["so wide, per edge"],
  turn_dart: ["kept where it is"],
  neckline: ["lower by", "wider by"],
  facing: ["so wide"],
  pocket: ["so deep", "so wide"],
};
/** What is done without any figure. */
const PLAIN: readonly What[] = ["even_legs", "split", "join", "on_fold", "lining"];

interface PlaceProps {
  label: string;
  edges: PieceMay["edges"];
  place: Typed;
  onChange: (place: Typed) => void;
}

/** An edge, and how far along it. */
function Place({ label, edges, place, onChange }: PlaceProps) {
  const edge = edges[place.edge] ?? edges[0];
  return (
    <span className={styles["place"]}>
      <span>{label.toLowerCase()}</span>
      <Select
        aria-label={`${label}: which edge`}
        popupMatchSelectWidth={false}
        value={place.edge}
        options={edges.map((e, n) => ({ value: n, label: e.words }))}
        onChange={(n) => {
          onChange({ ...place, edge: n });
        }}
      />
      <LengthField
        label={`${label}: how far ${edge?.from ?? ""}`}
        placeholder={edge?.from ?? ""}
        shown={place.at ?? ""}
        onRead={(at) => {
          onChange({ ...place, at });
        }}
        onEmpty={() => {
          onChange({ ...place, at: null });
        }}
      />
    </span>
  );
}

interface Props {
  may: PieceMay[];
  picked: number | null;
  onAdd: (change: PieceChange) => void;
}

/** One more thing done to a piece, with its figure. */
export function NewChange({ may, picked, onAdd }: Props) {
  const words = useWords();
  const [wanted, setWanted] = useState<What>("length");
  const [which, setWhich] = useState<number | null>(null);
  const [level, setLevel] = useState<PieceMay["levels"][number] | null>(null);
  const [edge, setEdge] = useState(0);
  const [end, setEnd] = useState<"upper" | "lower">("lower");
  const [face, setFace] = useState<PieceMay["key"]["face"] | "both">("both");
  const [at, setAt] = useState<"middle" | "side">("middle");
  const [by, setBy] = useState<string | null>(null);
  const [second, setSecond] = useState<string | null>(null);
  const [seam, setSeam] = useState<PieceMay["joins"][number] | null>(null);
  const [faced, setFaced] = useState(0);
  const [dart, setDart] = useState<PieceMay["darts"][number] | null>(null);
  const [opens, setOpens] = useState(NOWHERE);
  const [hinge, setHinge] = useState(NOWHERE);
  const place = which ?? picked ?? 0;
  const piece = may[place] ?? may[0];
  if (!piece) return null;
  const what = piece.does.includes(wanted) ? wanted : (piece.does[0] ?? wanted);
  const seams = what === "join" ? piece.joins : piece.folds;
  const leftOut = seam && seams.includes(seam) ? seam : seams[0];
  const strip = piece.faced[faced] ?? piece.faced[0];
  const below = level && piece.levels.includes(level) ? level : piece.levels[0];
  const named = piece.edges[edge] ?? piece.edges[0];
  const own = dart && piece.darts.includes(dart) ? dart : piece.darts[0];
  const isOfDart = ["turn_dart", "dart_point", "slide_dart", "even_legs"].includes(what);
  const placed = ({ edge: n, at: far }: Typed) => {
    const on = piece.edges[n] ?? piece.edges[0];
    return on && far !== null ? { edge: on.name, at: far } : null;
  };
  const change = (): PieceChange | null => {
    const { key } = piece;
    const to = placed(opens);
    switch (what) {
      case "turn_dart":
        return own && to ? { turn_dart: { piece: key, dart: own, to, keep: by } } : null;
      case "even_legs":
        return own ? { even_legs: { piece: key, dart: own } } : null;
      case "split": {
        const other = placed(hinge);
        return to && other ? { split: { piece: key, from: to, to: other } } : null;
      }
      case "join":
        return leftOut ? { join: { piece: key, seam: leftOut } } : null;
      case "on_fold":
        return leftOut ? { on_fold: { piece: key, seam: leftOut } } : null;
      case "lining":
        return { lining: { piece: key } };
      case "neckline": {
        if (by === null && second === null) return null;
        return { neckline: { piece: key, lower: by ?? NOUGHT, wider: second ?? NOUGHT } };
      }
      default:
        break;
    }
    if (by === null) return null;
    switch (what) {
      case "facing":
        return strip ? { facing: { piece: key, edge: strip.name, wide: by } } : null;
      case "pocket":
        return { pocket: { piece: key, deep: by, wide: second } };
      case "dart_point":
        return own ? { dart_point: { piece: key, dart: own, by } } : null;
      case "slide_dart":
        return own ? { slide_dart: { piece: key, dart: own, by } } : null;
      case "slash": {
        const held = placed(hinge);
        return to && held ? { slash: { piece: key, from: to, hinge: held, by } } : null;
      }
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
    return null;
  };
  const made = change();
  const forget = () => {
    setBy(null);
    setSecond(null);
    setOpens({ ...opens, at: null });
    setHinge({ ...hinge, at: null });
  };
  return (
    <div className={styles["new-change"]} role="group" aria-label="Change a piece">
      <span>Change</span>
      <Select
        aria-label="Which piece"
        popupMatchSelectWidth={false}
        value={place}
        options={may.map((m, n) => ({ value: n, label: m.name }))}
        onChange={setWhich}
      />
      <Select<What>
        aria-label="What is done"
        popupMatchSelectWidth={false}
        value={what}
        options={words.options<What>("piece_does").filter((o) => piece.does.includes(o.value))}
        onChange={(next) => {
          setWanted(next);
          forget();
        }}
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
            { value: "lower", label: named?.ends[0] },
            { value: "upper", label: named?.ends[1] },
          ]}
          onChange={setEnd}
        />
      )}
      {isOfDart && (
        <Select
          aria-label="Which dart"
          popupMatchSelectWidth={false}
          value={own ?? null}
          placeholder="it has no dart"
          options={piece.darts.map((d) => ({ value: d, label: words.of("dart", d) }))}
          onChange={setDart}
        />
      )}
      {what === "turn_dart" && (
        <Place label="Turned to" edges={piece.edges} place={opens} onChange={setOpens} />
      )}
      {(what === "join" || what === "on_fold") && (
        <Select
          aria-label="Without which seam"
          popupMatchSelectWidth={false}
          value={leftOut ?? null}
          options={seams.map((s) => ({ value: s, label: `without the ${words.of("seam", s)}` }))}
          onChange={setSeam}
        />
      )}
      {what === "facing" && (
        <Select
          aria-label="Along which edge"
          popupMatchSelectWidth={false}
          value={Math.min(faced, piece.faced.length - 1)}
          options={piece.faced.map((e, n) => ({ value: n, label: `along the ${e.words}` }))}
          onChange={setFaced}
        />
      )}
      {what === "split" && (
        <>
          <Place label="From" edges={piece.edges} place={opens} onChange={setOpens} />
          <Place label="To" edges={piece.edges} place={hinge} onChange={setHinge} />
        </>
      )}
      {what === "slash" && (
        <>
          <Place label="Opens at" edges={piece.edges} place={opens} onChange={setOpens} />
          <Place label="Holds at" edges={piece.edges} place={hinge} onChange={setHinge} />
        </>
      )}
      {!PLAIN.includes(what) && (
        <span className={styles["place"]}>
          <span>{BEFORE[what]?.[0] ?? "by"}</span>
          <LengthField
            label={FIGURE[what] ?? "By so much; less than nought takes away"}
            placeholder={PLACEHOLDER[what] ?? "1, or −1"}
            shown={by ?? ""}
            onRead={setBy}
            onEmpty={() => {
              setBy(null);
            }}
          />
        </span>
      )}
      {SECOND[what] && (
        <span className={styles["place"]}>
          <span>{BEFORE[what]?.[1]}</span>
          <LengthField
            label={SECOND[what]}
            placeholder={SECOND_PLACEHOLDER[what] ?? ""}
            shown={second ?? ""}
            onRead={setSecond}
            onEmpty={() => {
              setSecond(null);
            }}
          />
        </span>
      )}
      <Button
        type="primary"
        disabled={made === null}
        onClick={() => {
          if (made) onAdd(made);
          forget();
        }}
      >
        Do it
      </Button>
    </div>
  );
}
