import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, problemOf, type Garment, type LookOver, type Problem, type Tape } from "../api/client";

/**
 * Everything to find out about a garment, as far as it is known now. What cannot be is named beside the last look-over that
 * could be made, so that its fields stay.
 */
export function useLookOver(id: string, garment: Garment, tape: Tape, enabled: boolean) {
  const queries = useQueryClient();
  const last = ["look-over", id, "last"];
  return useQuery({
    queryKey: ["look-over", id, garment, tape],
    queryFn: async (): Promise<{ lookOver: LookOver | null; problem: Problem | null }> => {
      try {
        const request = api.POST("/api/v1/look-over", { params: { query: { tape } }, body: garment });
        const lookOver = await answer(request);
        queries.setQueryData(last, lookOver);
        return { lookOver, problem: null };
      } catch (error) {
        const problem = problemOf(error);
        return { lookOver: queries.getQueryData<LookOver>(last) ?? null, problem };
      }
    },
    placeholderData: keepPreviousData,
    enabled,
    gcTime: 0,
  });
}
