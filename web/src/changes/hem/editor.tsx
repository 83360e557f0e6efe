import type { Editor } from "../editors";
import { HemForm } from "./HemForm";

/** A hem: marks around an edge, and how it is turned. */
export const hem: Editor<"hem"> = {
  Settings: HemForm,
  pins: null,
  legend: () => null,
  withEnd: () => null,
  ownFaults: /\.(off|clearance|turns|lengths|longer_by|slit)/,
};
