import type { Alteration, Dart, DartPins, Garment, Reading, Seam, SolvedTryOn, TryOn } from "../api/client";
import { spoken } from "../drawing/words";

/** The elastic's key among the changes of a try-on. */
export const ELASTIC = "elastic";

const DART = "dart.";

/** The pins of one change and how they become a line; and the try-on with them changed. */
export interface Line {
  /** Where its faults are named, below the try-on. */
  path: string;
  readings: Reading[];
  seam?: { alteration: Alteration; changed: (change: Partial<Alteration>) => TryOn };
  dart?: { pins: DartPins; changed: (change: Partial<DartPins>) => TryOn };
  withReadings: (readings: Reading[]) => TryOn;
}

/** A change of a try-on by its key: `outseam`, `dart.back_waist`. */
export function lineOf(tryOn: TryOn, key: string): Line {
  return key.startsWith(DART) ? dartOf(tryOn, key.slice(DART.length) as Dart) : seamOf(tryOn, key as Seam);
}

/** The try-on with this seam in it, so that it is drawn and named before anything is pinned on it. */
export function withSeam(garment: Garment, tryOn: TryOn, key: string): TryOn {
  const isThere = garment.seams.some((s) => s.seam === key);
  const isPinned = tryOn.alterations?.some((a) => a.seam === key);
  if (!isThere || isPinned) return tryOn;
  return seamOf(tryOn, key as Seam).withReadings([]);
}

function seamOf(tryOn: TryOn, seam: Seam): Line {
  const alterations = tryOn.alterations ?? [];
  const at = alterations.findIndex((a) => a.seam === seam);
  const alteration: Alteration = alterations[at] ?? { seam, readings: [] };
  const changed = (change: Partial<Alteration>): TryOn => {
    const next = { ...alteration, ...change };
    const all = at < 0 ? [...alterations, next] : alterations.map((a, i) => (i === at ? next : a));
    return { ...tryOn, alterations: all };
  };
  return {
    path: `alterations[${at}]`,
    readings: alteration.readings ?? [],
    seam: { alteration, changed },
    withReadings: (readings) => changed({ readings }),
  };
}

function dartOf(tryOn: TryOn, dart: Dart): Line {
  const darts = tryOn.darts ?? [];
  const at = darts.findIndex((d) => d.dart === dart);
  const pins: DartPins = darts[at] ?? { dart, readings: [] };
  const changed = (change: Partial<DartPins>): TryOn => {
    const next = { ...pins, ...change };
    const all = at < 0 ? [...darts, next] : darts.map((d, i) => (i === at ? next : d));
    return { ...tryOn, darts: all };
  };
  return {
    path: `darts[${at}]`,
    readings: pins.readings,
    dart: { pins, changed },
    withReadings: (readings) => changed({ readings }),
  };
}

/** What can be changed on a garment, by key, each with its name on it. */
export function changeable(garment: Garment): { value: string; label: string }[] {
  const darts: Dart[] = ["front_waist", "back_waist", "front_fish_eye", "back_fish_eye", "bust", "shoulder"];
  const nameOf = (dart: Dart) => {
    const there = garment.darts?.find((d) => d.dart === dart);
    return there ? (there.name ?? `${spoken(dart)} dart`) : `new ${spoken(dart)} darts`;
  };
  return [
    ...garment.seams.map((s) => ({ value: s.seam, label: s.name ?? spoken(s.seam) })),
    ...darts.map((dart) => ({ value: DART + dart, label: nameOf(dart) })),
    { value: ELASTIC, label: "elastic in the waistband" },
  ];
}

/** The changes of a try-on that there are, by key, each with its name. */
export function changesOf(result: SolvedTryOn | undefined): { value: string; label: string }[] {
  const lines = [...(result?.seams ?? []), ...(result?.darts ?? [])];
  const all = lines.map((l) => ({ value: l.key, label: l.name }));
  return result?.elastic ? [...all, { value: ELASTIC, label: "elastic" }] : all;
}
