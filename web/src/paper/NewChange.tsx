import { Button, Select } from "antd";
import { createContext, useCallback, useContext, useState } from "react";
import type { FieldAsked, Pattern, PieceMay, Pieces } from "../api/client";
import { LengthField } from "../document/LengthField";
import { useWords } from "../document/useWords";
import styles from "./paper.module.css";

export type PieceChange = NonNullable<Pattern["changes"]>[number];
type What = PieceMay["does"][number];
type Key = PieceMay["key"];
/** The fields of a change by their names. */
type Values = Partial<Record<string, unknown>>;
/** A place on an outline, as far as it is entered. */
interface Place {
  edge?: unknown;
  at?: string | undefined;
}
/** A figure at a place along an edge, as far as it is entered. */
interface Pin {
  at?: string | undefined;
  by?: string | undefined;
}
interface Option {
  value: unknown;
  label: string;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** What a change does, to which piece or part, and its fields. */
function open(change: PieceChange): { what: What; of: Values; values: Values } {
  const [[what, fields]] = Object.entries(change) as [[What, Values]];
  const { piece, part, ...values } = fields;
  return { what, of: piece ? { piece } : { part }, values };
}

interface FieldProps {
  field: FieldAsked;
  /** The piece; nothing where it is there no more. */
  piece: PieceMay | undefined;
  options: Option[];
  value: unknown;
  /** From what it said to what it says: figures are read one after the other, and none forgets another. */
  onChange: (next: (was: unknown) => unknown) => void;
}

interface ChooseProps {
  label: string;
  options: Option[];
  value: unknown;
  onChange: (value: unknown) => void;
}

/** One of several. */
function Choose({ label, options, value, onChange }: ChooseProps) {
  const at = options.findIndex((option) => same(option.value, value));
  return (
    <Select
      aria-label={label}
      popupMatchSelectWidth={false}
      value={at < 0 ? null : at}
      options={options.map((option, n) => ({ value: n, label: option.label }))}
      onChange={(n) => {
        onChange(options[n]?.value);
      }}
    />
  );
}

/** Told of every figure that cannot be read: nothing is done before it can. */
const Troubles = createContext<(label: string, isThere: boolean) => void>(() => undefined);

interface FigureProps {
  label: string;
  hint: string;
  value: unknown;
  onChange: (value: string | undefined) => void;
}

function FigureField({ label, hint, value, onChange }: FigureProps) {
  const setTrouble = useContext(Troubles);
  return (
    <LengthField
      label={label}
      onTrouble={(isThere) => {
        setTrouble(label, isThere);
      }}
      placeholder={hint}
      shown={typeof value === "string" ? value : ""}
      onRead={onChange}
      onEmpty={() => {
        onChange(undefined);
      }}
    />
  );
}

/** Figures at places along an edge, and room for one more. */
function Pins({ field, piece, edge, value, onChange }: FieldProps & { edge: unknown }) {
  const pins = (value as Pin[] | undefined) ?? [];
  const from = piece?.edges.find((e) => same(e.name, edge))?.from ?? "";
  const set = (n: number, part: Pin) => {
    onChange((was) => {
      const next = [...((was as Pin[] | undefined) ?? [])];
      next[n] = { ...next[n], ...part };
      return next.filter((pin) => pin.at !== undefined || pin.by !== undefined);
    });
  };
  return [...pins, {}].map((pin, n) => (
    <span className={styles["place"]} key={n}>
      <FigureField
        label={`Figure ${n + 1}: how far ${from}`}
        hint={from}
        value={pin.at}
        onChange={(at) => {
          set(n, { at });
        }}
      />
      <span>in by</span>
      <FigureField
        label={`Figure ${n + 1}: ${field.label.toLowerCase()}`}
        hint="1, or −1"
        value={pin.by}
        onChange={(by) => {
          set(n, { by });
        }}
      />
    </span>
  ));
}

/** One field of a change. */
function Field({ field, piece, options, value, onChange }: FieldProps) {
  if (field.is === "figure")
    return (
      <span className={styles["place"]}>
        <span>{field.before}</span>
        <FigureField
          label={field.label}
          hint={field.hint}
          value={value}
          onChange={(next) => {
            onChange(() => next);
          }}
        />
      </span>
    );
  if (field.is !== "place")
    return (
      options.length > 0 && (
        <Choose
          label={field.label}
          options={options}
          value={value}
          onChange={(next) => {
            onChange(() => next);
          }}
        />
      )
    );
  const place = (value as Place | undefined) ?? {};
  const edge = piece?.edges.find((e) => same(e.name, place.edge));
  return (
    <span className={styles["place"]}>
      <span>{field.before}</span>
      {options.length > 0 && (
        <Choose
          label={`${field.label}: which edge`}
          options={options}
          value={place.edge}
          onChange={(next) => {
            onChange((was) => ({ ...(was as Place | undefined), edge: next }));
          }}
        />
      )}
      <FigureField
        label={`${field.label}: how far ${edge?.from ?? ""}`}
        hint={edge?.from ?? ""}
        value={place.at}
        onChange={(at) => {
          onChange((was) => ({ ...(was as Place | undefined), at }));
        }}
      />
    </span>
  );
}

interface Props {
  pieces: Pieces;
  picked: number | null;
  /** What is entered already and is changed; nothing when it is a new one. */
  editing: PieceChange | null;
  onDone: (change: PieceChange) => void;
  onLeave: () => void;
}

/** What is done to a piece, with its figures: one more thing, or one that is entered already. */
export function NewChange({ pieces: { may, asks }, picked, editing, onDone, onLeave }: Props) {
  const words = useWords();
  const opened = editing && open(editing);
  const [wanted, setWanted] = useState<What>(opened?.what ?? "length");
  const [which, setWhich] = useState<number | null>(null);
  const [values, setValues] = useState<Values>(opened?.values ?? {});
  const [troubles, setTroubles] = useState<string[]>([]);
  const setTrouble = useCallback((label: string, isThere: boolean) => {
    setTroubles((now) => {
      const others = now.filter((other) => other !== label);
      return isThere ? [...others, label] : others.length < now.length ? others : now;
    });
  }, []);
  const is = (key: Key) =>
    opened?.of["piece"] ? same(key, opened.of["piece"]) : opened && key.part === opened.of["part"];
  const piece = opened ? may.find((m) => is(m.key)) : (may[which ?? picked ?? 0] ?? may[0]);
  if (!piece && !opened) return null;
  const what = opened || piece?.does.includes(wanted) ? wanted : (piece?.does[0] ?? wanted);
  const asked = asks.find((each) => each.does === what);
  if (!asked) return null;
  const edgeNames = (list?: PieceMay["edges"], before = "") =>
    (list ?? []).map((e) => ({ value: e.name, label: `${before}${e.words}` }));
  const chosenEdge = () => piece?.edges.find((e) => same(e.name, valueOf("edge")));
  const optionsOf = ({ is: kind }: FieldAsked): Option[] => {
    switch (kind) {
      case "level":
        return (piece?.levels ?? []).map((l) => ({ value: l, label: `below the ${words.of("level", l)}` }));
      case "face":
        return [
          { value: undefined, label: "all of it" },
          ...words
            .options("piece_face")
            .filter((o) => may.some((m) => m.key.part === piece?.key.part && m.key.face === o.value))
            .map(({ value, label }) => ({ value, label: `${label} alone` })),
        ];
      case "opens_at":
        return words.options("opens_at");
      case "fullness":
        return words.options("fullness");
      case "edge":
      case "place":
        return edgeNames(piece?.edges);
      case "faced":
        return edgeNames(piece?.faced, "along the ");
      case "notched":
        return edgeNames(piece?.edges.filter((e) => e.notches.length > 0));
      case "at_corner":
        return edgeNames(piece?.edges.filter((e) => e.beside.length > 0));
      case "notch":
        return (chosenEdge()?.notches ?? []).map((label, n) => ({ value: n + 1, label }));
      case "beside":
        return (chosenEdge()?.beside ?? []).flatMap((name) =>
          edgeNames(
            piece?.edges.filter((e) => same(e.name, name)),
            "at the ",
          ),
        );
      case "end":
        return [false, true].map((upper) => ({
          value: upper,
          label: chosenEdge()?.ends[Number(upper)] ?? "",
        }));
      case "dart":
        return (piece?.darts ?? []).map((d) => ({ value: d, label: words.of("dart", d) }));
      case "join":
      case "fold":
        return ((kind === "join" ? piece?.joins : piece?.folds) ?? []).map((s) => ({
          value: s,
          label: `without the ${words.of("seam", s)}`,
        }));
      case "figure":
      case "pins":
        return [];
    }
  };
  /** What a field says: the first of what there is, where nobody said anything. */
  const valueOf = (name: string): unknown => {
    const field = asked.fields.find((each) => each.name === name);
    if (!field || field.is === "figure" || field.is === "pins") return values[name];
    const options = optionsOf(field);
    const settled = (value: unknown) =>
      opened || options.some((option) => same(option.value, value)) ? value : options[0]?.value;
    if (field.is !== "place") return settled(values[name]);
    const place = values[name] as Place | undefined;
    return { ...place, edge: settled(place?.edge) };
  };
  const change = (): PieceChange | null => {
    const said: Values = {};
    let figures = 0;
    for (const { name, is: kind, empty } of asked.fields) {
      const value = valueOf(name);
      const isThere =
        kind === "place"
          ? (value as Place).at !== undefined && (value as Place).edge !== undefined
          : kind === "pins"
            ? ((value ?? []) as Pin[]).some((pin) => pin.at !== undefined) &&
              (value as Pin[]).every((pin) => pin.at !== undefined && pin.by !== undefined)
            : value !== undefined && value !== null;
      if (!isThere && empty === "missing") return null;
      if (isThere) said[name] = value;
      else if (empty === "nought") said[name] = "0 cm";
      if (isThere && empty === "nought") figures += 1;
    }
    if (figures === 0 && asked.fields.some((field) => field.empty === "nought")) return null;
    const of = opened?.of ?? (asked.of_part ? { part: piece?.key.part } : { piece: piece?.key });
    return { [what]: { ...of, ...said } } as unknown as PieceChange;
  };
  const made = change();
  const forget = () => {
    setValues({});
    setTroubles([]);
  };
  return (
    <div className={styles["new-change"]} role="group" aria-label="Change a piece">
      {opened ? (
        <strong>{words.of("piece_does", what)}</strong>
      ) : (
        <>
          <span>Change</span>
          <Select
            aria-label="Which piece"
            popupMatchSelectWidth={false}
            value={may.findIndex((m) => m === piece)}
            options={may.map((m, n) => ({ value: n, label: m.name }))}
            onChange={setWhich}
          />
          <Select<What>
            aria-label="What is done"
            popupMatchSelectWidth={false}
            value={what}
            options={words.options<What>("piece_does").filter((o) => piece?.does.includes(o.value))}
            onChange={(next) => {
              setWanted(next);
              forget();
            }}
          />
        </>
      )}
      <Troubles value={setTrouble}>
        {asked.fields.map((field) => {
          const props = {
            field,
            piece,
            options: optionsOf(field),
            value: valueOf(field.name),
            onChange: (next: (was: unknown) => unknown) => {
              setValues((now) => ({ ...now, [field.name]: next(now[field.name]) }));
            },
          };
          return field.is === "pins" ? (
            <Pins key={field.name} {...props} edge={valueOf("edge")} />
          ) : (
            <Field key={field.name} {...props} />
          );
        })}
      </Troubles>
      <Button
        type="primary"
        disabled={made === null || troubles.length > 0}
        onClick={() => {
          if (made) onDone(made);
          forget();
        }}
      >
        {opened ? "Do it so" : "Do it"}
      </Button>
      {opened && <Button onClick={onLeave}>Leave it as it is</Button>}
    </div>
  );
}
