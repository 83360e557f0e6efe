import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api, type Garment, type Wearer } from "../api/client";
import { useSettings } from "../settings";

/** What the cloth says: of a garment on its wearer, or everything it could say. */
export function useSigns(wearer: Wearer, garment: Garment | null, enabled = true) {
  const { tape } = useSettings();
  return useQuery({
    queryKey: ["signs", wearer, garment, tape],
    queryFn: () =>
      answer(api.POST("/api/v1/signs", { params: { query: { tape } }, body: { wearer, garment } })),
    placeholderData: keepPreviousData,
    enabled,
    gcTime: 60_000,
    staleTime: Infinity,
  });
}
