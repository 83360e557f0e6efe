import { useQuery } from "@tanstack/react-query";
import { v7 as newId } from "uuid";
import { answer, api, type Garment, type GarmentState, type TryOn } from "../api/client";
import { useSettings } from "../settings";
import { draftOf, draftsOf, type Draft } from "./drafts";
import { today } from "./today";
import { draftsOfGarment, type OneTryOn } from "./useTryOn";

/** A garment as it is stored, with what was entered here and is not stored yet. */
export interface Opened {
  state: GarmentState;
  facts: Draft<Garment> | null;
  /** The oldest first; one at least, new where nobody tried it on yet. */
  tryOns: OneTryOn[];
}

/** What the draft of a garment's facts is kept under. */
export const factsKey = (garment: string) => `garment.${garment}`;

/** A new try-on of a state of a garment, worn as another one was. */
export function newTryOn(garment: string, state: string, like?: TryOn): OneTryOn {
  const id = newId();
  const date = today();
  const { worn, pinned_by, layers, shoes } = like ?? {};
  const kept = {
    ...(worn && { worn }),
    ...(pinned_by && { pinned_by }),
    ...(layers && { layers }),
    ...(shoes && { shoes }),
  };
  const initial = { id, state, date, ...kept };
  // One that somebody asked for is stored without waiting for its first entry.
  const draft = like ? { version: 0, base: initial, value: { ...initial } } : null;
  return { id, garment, initial, version: 0, draft };
}

/** The state that a garment is in now. */
export const newestOf = (state: GarmentState) => state.document.states.at(-1)?.id ?? "";

function tryOnsOf(state: GarmentState, drafts: Map<string, Draft<TryOn>>): OneTryOn[] {
  const stored = (state.document.try_ons ?? []).map((tryOn, index): OneTryOn => {
    const id = tryOn.id ?? "";
    const version = state.try_on_versions[index] ?? 0;
    return { id, garment: state.id, initial: tryOn, version, draft: drafts.get(id) ?? null };
  });
  // Begun without a network, and not stored yet.
  const begun = [...drafts]
    .filter(([id, draft]) => draft.version === 0 && !stored.some((s) => s.id === id))
    .map(([id, draft]): OneTryOn => ({ id, garment: state.id, initial: draft.base, version: 0, draft }));
  const all = [...stored, ...begun];
  return all.length > 0 ? all : [newTryOn(state.id, newestOf(state))];
}

/** A draft that an older interface kept, in the present form: it says neither on what state it was measured nor what its changes are. */
async function bringUp(state: GarmentState, draft: Draft<TryOn>): Promise<void> {
  if (draft.value.state) return;
  const id = newestOf(state);
  const { wearer, states } = state.document;
  const garment = { ...states.at(-1)?.garment, wearer };
  const body = { version: 1, garment, try_ons: [draft.base, draft.value] };
  const { try_ons = [] } = await answer(api.POST("/api/v1/brought-up", { body }));
  const [base, value] = try_ons.map((tryOn) => ({ ...tryOn, state: id }));
  if (base && value) Object.assign(draft, { base, value });
}

/** Opens a garment with all its try-ons, anew in each place: what another place entered is there then. */
export function useGarment(garment: string, place: "garment" | "fitting" | "large" | "card") {
  const { tape } = useSettings();
  return useQuery({
    // What it is solved to follows the tape; what is stored does not.
    queryKey: [place, garment],
    queryFn: async (): Promise<Opened> => {
      const state = await answer(
        api.GET("/api/v1/garments/{garment}", { params: { path: { garment }, query: { tape } } }),
      );
      const drafts = await draftsOf<TryOn>(draftsOfGarment(state.id));
      for (const draft of drafts.values()) await bringUp(state, draft);
      const facts = await draftOf<Garment & { wearer?: unknown }>(factsKey(state.id));
      if (facts) for (const part of [facts.base, facts.value]) delete part.wearer;
      return { state, facts, tryOns: tryOnsOf(state, drafts) };
    },
    // While it is worked on, this page is ahead of the server.
    staleTime: Infinity,
    gcTime: 0,
  });
}
