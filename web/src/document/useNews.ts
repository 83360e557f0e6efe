import { useQueryClient } from "@tanstack/react-query";
import * as queries from "../api/queries";
import { useEvents } from "./useEvents";

/** Asks anew for what lists garments and wearers whenever one of them changes, here or on another device. */
export function useNews(): void {
  const client = useQueryClient();
  useEvents("/api/v1/events", (event) => {
    if (!("garment" in event || "wearer" in event || "try_on" in event)) return;
    for (const { queryKey } of [queries.everyRail, queries.wearers, queries.everythingAhead])
      void client.invalidateQueries({ queryKey });
  });
}
