import { useQuery } from "@tanstack/react-query";
import { answer, api, type ClothLies, type Pattern } from "../api/client";
import { useSettings } from "../settings";

interface Cloth {
  width?: string;
  lies?: ClothLies;
}

/** The pieces of a garment as its paper is now: on a cloth, where one is said, and after whatever else they follow. */
export function usePieces(id: string, pattern: Pattern, follows: unknown, cloth: Cloth = {}, enabled = true) {
  const { tape } = useSettings();
  const { changes, drawn, marks } = pattern;
  return useQuery({
    queryKey: ["pieces", id, changes, drawn, marks, follows, cloth, tape],
    queryFn: () =>
      answer(
        api.POST("/api/v1/garments/{garment}/pieces", {
          params: { path: { garment: id }, query: { tape, ...cloth } },
          body: { pattern },
        }),
      ),
    placeholderData: (before) => before,
    enabled,
    gcTime: 0,
  });
}
