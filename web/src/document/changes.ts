import type {
  Change,
  ChangeKey,
  Document,
  Garment,
  Reading,
  SolvedChange,
  SolvedLine,
  TryOn,
} from "../api/client";

type KeysOf<Union> = Union extends unknown ? keyof Union : never;

/** A kind of change: `seam`, `dart`, … */
export type Kind = KeysOf<Change>;
/** What is entered for a kind of change. */
export type InputOf<K extends Kind> = K extends Kind ? Extract<Change, Record<K, unknown>>[K] : never;

/** What tells changes of a kind from each other, and one with nothing entered yet. */
const NAMED: { [K in Kind]: { name: (input: InputOf<K>) => string; begin: (name: string) => InputOf<K> } } = {
  seam: { name: (seam) => seam.seam, begin: (name) => ({ seam: name as InputOf<"seam">["seam"] }) },
  dart: { name: (dart) => dart.dart, begin: (name) => ({ dart: name as InputOf<"dart">["dart"] }) },
  elastic: {
    name: (elastic) => elastic.at ?? "waistband",
    begin: (at) => ({ at: at as NonNullable<InputOf<"elastic">["at"]> }),
  },
  armhole: { name: (armhole) => armhole.at, begin: (at) => ({ at: at as InputOf<"armhole">["at"] }) },
  spacing: { name: (spacing) => spacing.at, begin: (at) => ({ at: at as InputOf<"spacing">["at"] }) },
  trunk: { name: (trunk) => trunk.at, begin: (at) => ({ at: at as InputOf<"trunk">["at"] }) },
  gathers: { name: (gathers) => gathers.at, begin: (at) => ({ at: at as InputOf<"gathers">["at"] }) },
  hem: { name: (hem) => hem.hem, begin: (name) => ({ hem: name as InputOf<"hem">["hem"] }) },
};

/** The kind of a change, by its key: `seam.outseam`. */
export const kindOf = (key: ChangeKey): Kind => key.slice(0, key.indexOf(".")) as Kind;

/** What is entered for a change. */
export function inputOf<K extends Kind>(kind: K, change: Change): InputOf<K> {
  return (change as unknown as Record<K, InputOf<K>>)[kind];
}

const changeOf = <K extends Kind>(kind: K, input: InputOf<K>) => ({ [kind]: input }) as unknown as Change;

/** Which change it is. */
export function keyOf(change: Change): ChangeKey {
  const kind = Object.keys(change)[0] as Kind;
  const named = NAMED[kind] as { name: (input: InputOf<Kind>) => string };
  return `${kind}.${named.name(inputOf(kind, change))}`;
}

/** The change of a try-on that has this key, or one with nothing entered yet. */
export function changeAt(tryOn: TryOn, key: ChangeKey): Change {
  const there = tryOn.changes?.find((change) => keyOf(change) === key);
  if (there) return there;
  const kind = kindOf(key);
  return changeOf(kind, NAMED[kind].begin(key.slice(kind.length + 1)));
}

/** The number of a change in its try-on, by which its faults are named; -1 where it is not entered. */
export const placeOf = (tryOn: TryOn, key: ChangeKey) =>
  (tryOn.changes ?? []).findIndex((change) => keyOf(change) === key);

/** The try-on with a change in place of the one of the same key; a new one comes last. */
export function withChange(tryOn: TryOn, change: Change): TryOn {
  const changes = tryOn.changes ?? [];
  const at = placeOf(tryOn, keyOf(change));
  return {
    ...tryOn,
    changes: at < 0 ? [...changes, change] : changes.map((other, index) => (index === at ? change : other)),
  };
}

/** The try-on with something else entered for one change. */
export function withInput(tryOn: TryOn, key: ChangeKey, input: Partial<InputOf<Kind>>): TryOn {
  const kind = kindOf(key);
  const next = { ...inputOf(kind, changeAt(tryOn, key)), ...input } as InputOf<Kind>;
  return withChange(tryOn, changeOf(kind, next));
}

/** The try-on without a change. */
export function withoutChange(tryOn: TryOn, key: ChangeKey): TryOn {
  return { ...tryOn, changes: (tryOn.changes ?? []).filter((change) => keyOf(change) !== key) };
}

/** The pins of a change; none where it has no pins. */
export function readingsOf(change: Change): Reading[] {
  const input = inputOf(Object.keys(change)[0] as Kind, change) as { readings?: Reading[] };
  return input.readings ?? [];
}

/** The line of a solved change, with its pins; null where it has none. */
export function lineOf({ shows }: SolvedChange): SolvedLine | null {
  const [shown = {}] = Object.values(shows) as object[];
  return "strip" in shown ? (shown as SolvedLine) : null;
}

/** The try-on with other pins on one change. */
export function withReadings(tryOn: TryOn, key: ChangeKey, readings: Reading[]): TryOn {
  return withInput(tryOn, key, { readings });
}

/** A garment with these try-ons, and of its states those that they were measured on. */
export function documentOf(garment: Document, tryOns: TryOn[]): Document {
  const named = new Set(tryOns.map((tryOn) => tryOn.state));
  const states = garment.states.filter((state) => named.has(state.id));
  const { version, wearer } = garment;
  return { version, wearer, states: states.length > 0 ? states : garment.states.slice(-1), try_ons: tryOns };
}

/** The state of a garment that a try-on was measured on; without one, how it is now. */
export function stateOf(garment: Document, tryOn?: TryOn) {
  return garment.states.find((state) => state.id === tryOn?.state) ?? garment.states.at(-1);
}

/** The facts of a garment as it is now. */
export function newestFacts(document: Document): Garment {
  const newest = stateOf(document);
  if (!newest) throw new Error("a garment has one state at least");
  return newest.garment;
}

/** A garment whose newest state is corrected. */
export function withFacts(document: Document, facts: Garment): Document {
  const last = document.states.length - 1;
  const states = document.states.map((s, n) =>
    n === last && s.garment !== facts ? { ...s, garment: facts } : s,
  );
  return { ...document, states };
}
