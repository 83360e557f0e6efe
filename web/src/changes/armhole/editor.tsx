import type { Editor } from "../editors";
import { ArmholeForm } from "./ArmholeForm";

/** An armhole and its sleeve: read on the body, no pins and no line. */
export const armhole: Editor<"armhole"> = {
  Settings: ArmholeForm,
  pins: null,
  legend: () => null,
  withEnd: () => null,
  ownFaults: /\./,
};
