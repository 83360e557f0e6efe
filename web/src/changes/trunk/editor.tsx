import type { Editor } from "../editors";
import { TrunkForm } from "./TrunkForm";

/** A length of the trunk: read on the body at three places, no pins and no line. */
export const trunk: Editor<"trunk"> = {
  Settings: TrunkForm,
  pins: null,
  legend: () => null,
  withEnd: () => null,
  ownFaults: /\./,
};
