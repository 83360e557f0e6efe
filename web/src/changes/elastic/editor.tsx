import type { Editor } from "../editors";
import { ElasticForm } from "./ElasticForm";

/** Elastic: no pins and no line. */
export const elastic: Editor<"elastic"> = {
  Settings: ElasticForm,
  pins: null,
  legend: () => null,
  withEnd: () => null,
  ownFaults: /\./,
};
