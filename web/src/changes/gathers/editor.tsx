import type { Editor } from "../editors";
import { GathersForm } from "./GathersForm";

/** Gathers and pleats: no pins and no line. */
export const gathers: Editor<"gathers"> = {
  Settings: GathersForm,
  pins: null,
  legend: () => null,
  withEnd: () => null,
  ownFaults: /\./,
};
