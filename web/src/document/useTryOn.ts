import { useCallback } from "react";
import { answer, api, type LiveEvent, type TryOn } from "../api/client";
import type { Draft } from "./drafts";
import { useKept, type Kept } from "./useKept";
import { useSettings } from "../settings";
import { useEvents } from "./useEvents";

/** A try-on to go on with. */
export interface OneTryOn {
  id: string;
  garment: string;
  initial: TryOn;
  version: number;
  draft: Draft<TryOn> | null;
}

/** What drafts of a garment's try-ons are kept under, before the try-on's id. */
export const draftsOfGarment = (garment: string) => `try-on.${garment}.`;

interface Options {
  /** Somebody who was invited: they reach this try-on and nothing else. */
  asGuest?: boolean;
  undoable?: boolean;
  /** Every entry is stored at once, without waiting for the hand to pause. */
  atOnce?: boolean;
  onEvent?: (event: LiveEvent) => void;
}

/**
 * A try-on while it is filled in: every entry is stored, also by two devices at once; what others enter appears; nothing is
 * lost without a network.
 */
export function useTryOn(one: OneTryOn, options: Options = {}): Kept<TryOn> {
  const { asGuest = false, undoable = true, atOnce = false, onEvent } = options;
  const { tape } = useSettings();
  const path = { garment: one.garment, try_on: one.id };
  const kept = useKept<TryOn>({
    id: draftsOfGarment(one.garment) + one.id,
    initial: one.initial,
    version: one.version,
    draft: one.draft,
    undoable,
    ...(atOnce ? { pause: 0 } : {}),
    store: async (version, tryOn, base, prefer) => {
      const body = { version, try_on: tryOn, ...(version > 0 || base !== one.initial ? { base } : {}) };
      const full = prefer ? { ...body, prefer } : body;
      const made = asGuest
        ? await answer(api.PUT("/api/v1/guest/try-on", { params: { query: { tape } }, body: full }))
        : await answer(
            api.PUT("/api/v1/garments/{garment}/try-ons/{try_on}", {
              params: { path, query: { tape } },
              body: full,
            }),
          );
      return made.as_sent ? { version: made.version } : { version: made.version, value: made.try_on };
    },
    rebase: (from, to, onto) => answer(api.POST("/api/v1/rebase", { body: { from, to, onto } })),
  });
  const { adopt, version } = kept;
  const isThere = asGuest || version > 0;
  const look = useCallback(async () => {
    if (!isThere) return;
    try {
      if (asGuest) {
        const state = await answer(api.GET("/api/v1/guest"));
        const [tryOn] = state.document.try_ons ?? [];
        if (tryOn) await adopt({ value: tryOn, version: state.version });
        return;
      }
      const params = { path: { garment: one.garment, try_on: one.id } };
      const state = await answer(api.GET("/api/v1/garments/{garment}/try-ons/{try_on}", { params }));
      await adopt({ value: state.try_on, version: state.version });
    } catch {
      // Not stored yet, or out of reach: what is here stays, and the next event looks again.
    }
  }, [adopt, asGuest, isThere, one.garment, one.id]);
  useEvents(asGuest ? "/api/v1/guest/events" : "/api/v1/events", (event) => {
    const isNewer =
      "try_on" in event && event.try_on.try_on === one.id && (event.try_on.version ?? 0) > version;
    if (isNewer || "again" in event) void look();
    onEvent?.(event);
  });
  return kept;
}
