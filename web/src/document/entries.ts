import { v7 as newId } from "uuid";
import type { HemMark, PinPlace, PinSide, Reading, TryOn } from "../api/client";
import { changeAt, readingsOf, withReadings } from "./changes";

/** Putting entries into a try-on. Each has an id of its own, made here, so that what is sent twice is stored once. */

/** The pin at a place, if there is one: what the core found there, or what was entered here since. */
export function pinAt(tryOn: TryOn, place: PinPlace, side: PinSide): Reading | undefined {
  const readings = readingsOf(changeAt(tryOn, place.change)).filter((r) => r.side === side.side);
  return (
    readings.find((r) => r.station === place.station) ??
    readings.find((r) => side.pin?.id && r.id === side.pin.id)
  );
}

/** The try-on with a pin at a place; the pin that was there keeps its id. */
export function withPin(
  tryOn: TryOn,
  place: PinPlace,
  side: PinSide,
  pin: Pick<Reading, "amount" | "how">,
): TryOn {
  const before = pinAt(tryOn, place, side);
  const readings = readingsOf(changeAt(tryOn, place.change));
  const reading = { id: newId(), side: side.side, station: place.station, ...before, ...pin };
  const next = before ? readings.map((r) => (r === before ? reading : r)) : [...readings, reading];
  return withoutLeftOut(withReadings(tryOn, place.change, next), place, side);
}

export function withoutPin(tryOn: TryOn, place: PinPlace, side: PinSide): TryOn {
  const gone = pinAt(tryOn, place, side);
  const readings = readingsOf(changeAt(tryOn, place.change));
  return withReadings(
    tryOn,
    place.change,
    readings.filter((r) => r !== gone),
  );
}

type Why = NonNullable<TryOn["left_out"]>[number]["why"];

function withoutLeftOut(tryOn: TryOn, place: PinPlace, side: PinSide): TryOn {
  const here = (l: NonNullable<TryOn["left_out"]>[number]) =>
    l.change === place.change && l.side === side.side && l.level === place.level;
  if (!tryOn.left_out?.some(here)) return tryOn;
  return { ...tryOn, left_out: tryOn.left_out.filter((l) => !here(l)) };
}

/** The try-on with a place that has no pin, and why. */
export function withLeftOut(tryOn: TryOn, place: PinPlace, side: PinSide, why: Why): TryOn {
  const clear = withoutLeftOut(tryOn, place, side);
  const left = { change: place.change, side: side.side, level: place.level, why };
  return { ...clear, left_out: [...(clear.left_out ?? []), left] };
}

/** A place around a hem. */
type Place = Pick<HemMark, "edge" | "side" | "around">;

/** The mark around a hem, if there is one. */
export function markAt(tryOn: TryOn, place: Place): HemMark | undefined {
  return tryOn.hem_marks?.find(
    (m) => m.edge === place.edge && (m.side ?? null) === (place.side ?? null) && m.around === place.around,
  );
}

/** The try-on with a mark around a hem; the one that was there keeps its id. */
export function withMark(
  tryOn: TryOn,
  place: Place,
  mark: Pick<HemMark, "how" | "amount"> & { again?: string | null },
): TryOn {
  const before = markAt(tryOn, place);
  const { edge, side, around } = place;
  const next = { id: newId(), edge, around, ...(side && { side }), ...before, ...mark };
  const marks = tryOn.hem_marks ?? [];
  return { ...tryOn, hem_marks: before ? marks.map((m) => (m === before ? next : m)) : [...marks, next] };
}

/** The try-on without a mark around a hem. */
export function withoutMark(tryOn: TryOn, place: Place): TryOn {
  const there = markAt(tryOn, place);
  return { ...tryOn, hem_marks: (tryOn.hem_marks ?? []).filter((mark) => mark !== there) };
}
