import { v7 as newId } from "uuid";
import type { HemMark, HemPlace, PinPlace, PinSide, Reading, TryOn } from "../api/client";

/** Putting entries into a try-on. Each has an id of its own, made here, so that what is sent twice is stored once. */

const NM = { mm: 1e6, cm: 1e7, in: 25_400_000 } as const;

/** A length as a document holds it, in nanometres; for telling entries apart, not for any arithmetic of the craft. */
export function nmOf(measure: string): number {
  const [, text = "", unit = "cm"] = /^(.*) (mm|cm|in)$/.exec(measure) ?? [];
  const parts = text.split(" ").map((part) => {
    const [over = "0", under = "1"] = part.split("/");
    return Number(over) / Number(under);
  });
  return Math.round(parts.reduce((a, b) => a + b, 0) * NM[unit as keyof typeof NM]);
}

/** Two stations this close are one place, on whichever tape they were read; the core has the same figure. */
const near = (a: string, b: string) => Math.abs(nmOf(a) - nmOf(b)) <= 3e6;

const listOf = (tryOn: TryOn, place: PinPlace): Reading[] =>
  (place.seam
    ? tryOn.alterations?.find((a) => a.seam === place.seam)?.readings
    : tryOn.darts?.find((d) => d.dart === place.dart)?.readings) ?? [];

/** The pin at a place, if there is one. */
export function pinAt(tryOn: TryOn, place: PinPlace, side: PinSide): Reading | undefined {
  return listOf(tryOn, place).find((r) => r.side === side.side && near(r.station, place.station));
}

/** The try-on with other readings on a seam or dart. */
function withReadings(tryOn: TryOn, place: PinPlace, readings: Reading[]): TryOn {
  if (place.seam) {
    const seam = place.seam;
    const all = tryOn.alterations ?? [];
    const alterations = all.some((a) => a.seam === seam)
      ? all.map((a) => (a.seam === seam ? { ...a, readings } : a))
      : [...all, { seam, readings }];
    return { ...tryOn, alterations };
  }
  const others = (tryOn.darts ?? []).filter((d) => d.dart !== place.dart);
  return { ...tryOn, darts: place.dart ? [...others, { dart: place.dart, readings }] : others };
}

/** The try-on with a pin at a place; the pin that was there keeps its id. */
export function withPin(
  tryOn: TryOn,
  place: PinPlace,
  side: PinSide,
  pin: Pick<Reading, "amount" | "how">,
): TryOn {
  const before = pinAt(tryOn, place, side);
  const readings = listOf(tryOn, place);
  const reading = { id: newId(), side: side.side, station: place.station, ...before, ...pin };
  const next = before ? readings.map((r) => (r === before ? reading : r)) : [...readings, reading];
  return withoutLeftOut(withReadings(tryOn, place, next), place, side);
}

export function withoutPin(tryOn: TryOn, place: PinPlace, side: PinSide): TryOn {
  const gone = pinAt(tryOn, place, side);
  return withReadings(
    tryOn,
    place,
    listOf(tryOn, place).filter((r) => r !== gone),
  );
}

type Why = NonNullable<TryOn["left_out"]>[number]["why"];

function withoutLeftOut(tryOn: TryOn, place: PinPlace, side: PinSide): TryOn {
  const here = (l: NonNullable<TryOn["left_out"]>[number]) =>
    l.seam === place.seam && l.side === side.side && l.level === place.level;
  if (!tryOn.left_out?.some(here)) return tryOn;
  return { ...tryOn, left_out: tryOn.left_out.filter((l) => !here(l)) };
}

/** The try-on with a place that has no pin, and why. */
export function withLeftOut(tryOn: TryOn, place: PinPlace, side: PinSide, why: Why): TryOn {
  if (!place.seam) return tryOn;
  const clear = withoutLeftOut(tryOn, place, side);
  const left = { seam: place.seam, side: side.side, level: place.level, why };
  return { ...clear, left_out: [...(clear.left_out ?? []), left] };
}

/** The mark around a hem, if there is one. */
export function markAt(tryOn: TryOn, place: HemPlace): HemMark | undefined {
  return tryOn.hem_marks?.find(
    (m) => m.edge === place.edge && (m.side ?? null) === (place.side ?? null) && m.around === place.around,
  );
}

/** The try-on with a mark around a hem; the one that was there keeps its id. */
export function withMark(
  tryOn: TryOn,
  place: HemPlace,
  mark: Pick<HemMark, "how" | "amount"> & { again?: string | null },
): TryOn {
  const before = markAt(tryOn, place);
  const { edge, side, around } = place;
  const next = { id: newId(), edge, around, ...(side && { side }), ...before, ...mark };
  const marks = tryOn.hem_marks ?? [];
  return { ...tryOn, hem_marks: before ? marks.map((m) => (m === before ? next : m)) : [...marks, next] };
}
