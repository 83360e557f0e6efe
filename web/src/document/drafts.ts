import { createStore, del, delMany, entries, get, keys, set } from "idb-keyval";

/** What was entered here and is not stored yet: it outlives the page, the network and the browser. */
export interface Draft<T> {
  /** The version and the state it was begun from. */
  version: number;
  base: T;
  value: T;
}

const drafts = createStore("vemble-drafts", "drafts");
const FIELD = "vemble.draft.field.";

/** Keeps a draft. Where the browser keeps nothing, the page itself still has it. */
export function keepDraft<T>(id: string, draft: Draft<T>): void {
  set(id, draft, drafts).catch(() => undefined);
}

export function dropDraft(id: string): void {
  del(id, drafts).catch(() => undefined);
}

/** Forgets everything that was kept here: whoever signs in next starts clean. */
export function forgetDrafts(): void {
  for (const key of Object.keys(localStorage)) {
    if (key.startsWith(FIELD)) localStorage.removeItem(key);
  }
  keys(drafts)
    .then((all) => delMany(all, drafts))
    .catch(() => undefined);
}

/** The draft that was kept under an id, or null. */
export async function draftOf<T>(id: string): Promise<Draft<T> | null> {
  const draft = await get<Draft<T>>(id, drafts).catch(() => undefined);
  return draft ?? null;
}

/** All drafts whose ids begin so, by the rest of their ids. */
export async function draftsOf<T>(prefix: string): Promise<Map<string, Draft<T>>> {
  const all = await entries<string, Draft<T>>(drafts).catch(() => []);
  const own = all.filter(([id]) => id.startsWith(prefix));
  return new Map(own.map(([id, draft]) => [id.slice(prefix.length), draft]));
}
