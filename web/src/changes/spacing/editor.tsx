import type { Editor } from "../editors";
import { SpacingForm } from "./SpacingForm";

/** Fastenings along an opening: no pins and no line. */
export const spacing: Editor<"spacing"> = {
  Settings: SpacingForm,
  pins: null,
  legend: () => null,
  withEnd: () => null,
  ownFaults: /\./,
};
