import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api, type Asking, type Document, type Tape, type TryOn } from "../api/client";
import { documentOf } from "./changes";

/** What to ask in the last of these try-ons, by the core; with the one before it in mind. */
export async function ask(garment: Document, tryOns: TryOn[], tape: Tape): Promise<Asking> {
  const body = documentOf(garment, tryOns);
  return answer(api.POST("/api/v1/asking", { params: { query: { tape } }, body }));
}

/** The same, kept up with what is entered. Without a network the last answer stays: the questions do not change. */
export function useAsking(garment: Document, before: TryOn | undefined, tryOn: TryOn, tape: Tape) {
  return useQuery({
    queryKey: ["asking", garment.states, garment.wearer, before, tryOn, tape],
    queryFn: () => ask(garment, before ? [before, tryOn] : [tryOn], tape),
    placeholderData: keepPreviousData,
    gcTime: 0,
    staleTime: Infinity,
    // A question that cannot be asked now is asked again when there is a network; the last ones stay meanwhile.
    retry: true,
    retryDelay: 3000,
  });
}
