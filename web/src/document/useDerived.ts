import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, problemOf, type Garment, type Tape, type Wearer } from "../api/client";
import { useSettings } from "../settings";

/** A garment in one state on its wearer. */
export interface WornGarment {
  garment: Garment;
  wearer: Wearer;
}

/**
 * What the server derives from a garment, kept up with it. What cannot be is named beside the last that could be made, so that
 * nothing disappears while something is typed.
 */
function useDerived<T>(key: string[], worn: WornGarment, ask: () => Promise<T>, enabled = true) {
  const [last, setLast] = useState<T | null>(null);
  const { data, error } = useQuery({
    queryKey: [...key, worn.garment, worn.wearer],
    queryFn: ask,
    placeholderData: keepPreviousData,
    enabled,
    gcTime: 0,
  });
  if (data && data !== last) setLast(data);
  return { value: data ?? last, problem: error && problemOf(error) };
}

/** Everything to find out about a garment, as far as it is known now. */
export function useLookOver(id: string, worn: WornGarment, tape: Tape, enabled: boolean) {
  const ask = () => answer(api.POST("/api/v1/look-over", { params: { query: { tape } }, body: worn }));
  return useDerived(["look-over", id, tape], worn, ask, enabled);
}

/** The garment as it is, drawn on its wearer. */
export function useStand(id: string, worn: WornGarment) {
  const { tape } = useSettings();
  const ask = () => answer(api.POST("/api/v1/stand", { params: { query: { tape } }, body: worn }));
  return useDerived(["stand", id, tape], worn, ask).value;
}
