import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { answer, api, type GarmentState, type Wishes } from "../api/client";
import * as queries from "../api/queries";
import { useKept } from "../document/useKept";
import { useSettings } from "../settings";

/** What is wished for the work on a garment: kept like everything else that is entered. */
export function useWishes(state: GarmentState, undoable: boolean) {
  const client = useQueryClient();
  const { tape } = useSettings();
  const kept = useKept<Wishes>({
    id: `wishes.${state.id}`,
    initial: state.document.wishes ?? {},
    version: state.wishes_version,
    draft: null,
    undoable,
    store: async (version, wishes) => {
      const params = { path: { garment: state.id }, query: { tape } };
      const made = await answer(
        api.PUT("/api/v1/garments/{garment}/wishes", { params, body: { version, wishes } }),
      );
      await client.invalidateQueries(queries.everythingAhead);
      return { version: made.version };
    },
  });
  const change = useCallback(
    (part: Partial<Wishes>) => {
      kept.change({ ...kept.value, ...part });
    },
    [kept],
  );
  return { ...kept, set: change };
}

/** Wishes while they are worked on. */
export type KeptWishes = ReturnType<typeof useWishes>;

/** What is wished for a garment, and how a part of it is set. */
export interface OfWishes {
  wishes: Wishes;
  onSet: (part: Partial<Wishes>) => void;
}
