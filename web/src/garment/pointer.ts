import type { Garment } from "../api/client";

/** Any part of a garment, seen as plain JSON. */
type Json = Record<string, unknown> | unknown[];

const steps = (path: string) => path.split("/").slice(1);

/** What stands at a JSON pointer (RFC 6901) of a garment. */
export function valueAt(garment: Garment, path: string): unknown {
  return steps(path).reduce<unknown>(
    (at, key) => (typeof at === "object" && at !== null ? (at as Record<string, unknown>)[key] : undefined),
    garment,
  );
}

/** The garment with another value at a JSON pointer; `undefined` takes away what is there. */
export function withValueAt(garment: Garment, path: string, value: unknown): Garment {
  const change = (at: Json, keys: string[]): Json => {
    const [key = "", ...rest] = keys;
    if (Array.isArray(at)) {
      const index = Number(key);
      if (rest.length === 0 && value === undefined) return at.filter((_, n) => n !== index);
      return at.map((item: unknown, n) =>
        n === index ? (rest.length === 0 ? value : change(item as Json, rest)) : item,
      );
    }
    if (rest.length === 0) {
      if (value !== undefined) return { ...at, [key]: value };
      return Object.fromEntries(Object.entries(at).filter(([name]) => name !== key));
    }
    return { ...at, [key]: change((at[key] ?? {}) as Json, rest) };
  };
  return change(garment, steps(path)) as unknown as Garment;
}

/** `levels[2].width` as a JSON pointer. */
export const pointerOf = (path: string): string =>
  `/${path.replace(/\[(\d+)\]/g, ".$1").replaceAll(".", "/")}`;
