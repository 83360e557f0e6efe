import { queryOptions } from "@tanstack/react-query";
import { answer, api, type Tape } from "./client";

/** What more than one place asks the server for: each has its key here and nowhere else. */

/** Whose session this is. */
export const who = queryOptions({
  queryKey: ["who"],
  queryFn: () => answer(api.GET("/api/v1/session")),
  // Nobody, mostly: whoever is asked to sign in is not asked three times.
  retry: false,
});

/** What somebody who is at the door may do. */
export const doors = queryOptions({
  queryKey: ["doors"],
  queryFn: () => answer(api.GET("/api/v1/doors")),
  staleTime: Infinity,
});

/** The rail, on whatever tape. */
export const everyRail = { queryKey: ["rail"] };

/** All garments, as they are judged on a tape. They change wherever something is entered: whoever looks at the rail asks anew. */
export const rail = (tape: Tape) =>
  queryOptions({
    queryKey: [...everyRail.queryKey, tape],
    queryFn: () => answer(api.GET("/api/v1/rail", { params: { query: { tape } } })),
    staleTime: 0,
  });

/** All wearers, asked for anew for the same reason. */
export const wearers = queryOptions({
  queryKey: ["wearers"],
  queryFn: () => answer(api.GET("/api/v1/wearers")),
  staleTime: 0,
});

// What a version of Vemble knows stays as it is for as long as the page is open.

/** The words of every choice. */
export const words = queryOptions({
  queryKey: ["words"],
  queryFn: () => answer(api.GET("/api/v1/words")),
  staleTime: Infinity,
});

/** The words of the trade, and cautions. */
export const terms = queryOptions({
  queryKey: ["terms"],
  queryFn: () => answer(api.GET("/api/v1/terms")),
  staleTime: Infinity,
});

/** The kinds of garment to begin with. */
export const kinds = queryOptions({
  queryKey: ["kinds"],
  queryFn: () => answer(api.GET("/api/v1/kinds")),
  staleTime: Infinity,
});

/** Cloths known by name, with what is usual for each. */
export const cloths = queryOptions({
  queryKey: ["cloths"],
  queryFn: () => answer(api.GET("/api/v1/cloths")),
  staleTime: Infinity,
});

/** Where each measurement is taken, drawn. */
export const measurements = queryOptions({
  queryKey: ["measurements"],
  queryFn: () => answer(api.GET("/api/v1/measurements")),
  staleTime: Infinity,
});

/** What lies ahead, on whatever tape and of whatever garment. */
export const everythingAhead = { queryKey: ["ahead"] };

/** What lies ahead of everything; with the tasks of one garment, and with ways out, where they are asked for. */
export const ahead = (tape: Tape, garment?: string, waysOut = false) =>
  queryOptions({
    queryKey: [...everythingAhead.queryKey, tape, garment ?? null, waysOut],
    queryFn: () =>
      answer(
        api.GET("/api/v1/ahead", {
          params: { query: { tape, ways_out: waysOut, ...(garment && { garment }) } },
        }),
      ),
    staleTime: 0,
    // The clock goes on, and others tick too.
    refetchInterval: 20_000,
  });

/** What all garments of the account share. */
export const workroom = queryOptions({
  queryKey: ["workroom"],
  queryFn: () => answer(api.GET("/api/v1/workroom")),
  staleTime: 0,
});
