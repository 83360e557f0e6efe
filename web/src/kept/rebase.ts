type Entry = Record<string, unknown>;

const isObject = (value: unknown): value is Entry =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** What an entry of a list is known by; lists of anything else are taken whole. */
const keyOf = (entry: unknown): string | null => {
  if (!isObject(entry)) return null;
  const { id, seam, dart, movement, check, name } = entry;
  const key = id ?? seam ?? dart ?? movement ?? check ?? name;
  return typeof key === "string" ? key : null;
};

/**
 * What changed from one state to another, done to a third: so that undoing one's own change leaves alone what somebody else
 * entered meanwhile. Entries are told apart by their ids; nothing is judged here, the server brings states together.
 */
export function rebase<T>(from: T, to: T, onto: T): T {
  return moved(from, to, onto) as T;
}

function moved(from: unknown, to: unknown, onto: unknown): unknown {
  if (same(from, to)) return onto;
  if (isObject(to) && isObject(onto)) {
    const before = isObject(from) ? from : {};
    const result: Entry = { ...onto };
    for (const key of new Set([...Object.keys(before), ...Object.keys(to)])) {
      if (same(before[key], to[key])) continue;
      const value = moved(before[key], to[key], onto[key]);
      if (value === undefined) Reflect.deleteProperty(result, key);
      else result[key] = value;
    }
    return result;
  }
  const list = (value: unknown) => (Array.isArray(value) ? (value as unknown[]) : []);
  const isList = Array.isArray(to) && Array.isArray(onto);
  if (isList && [...list(to), ...list(onto)].every((e) => keyOf(e) !== null)) {
    const find = (entries: unknown[], key: string | null) => entries.find((e) => keyOf(e) === key);
    const [was, is] = [list(from), list(to)];
    const kept = list(onto).flatMap((entry) => {
      const key = keyOf(entry);
      const [a, b] = [find(was, key), find(is, key)];
      if (a !== undefined && b === undefined) return [];
      return [b === undefined ? entry : moved(a, b, entry)];
    });
    const fresh = is.filter((e) => !find(was, keyOf(e)) && !find(onto, keyOf(e)));
    return [...kept, ...fresh];
  }
  return to;
}
