import type { Editor } from "../editors";
import { DartSettings } from "./DartSettings";

/** A pair of darts: pins along the fold. */
export const dart: Editor<"dart"> = {
  Settings: DartSettings,
  pins: { along: "from the point of the dart", from: "point" },
  legend: (line) => (
    <>
      <span className="key key-before">middle of the dart</span>
      <span className="key key-after">new fold depth, to either side</span>
      <span>stations from the {line.datum}</span>
    </>
  ),
  withEnd: () => null,
  ownFaults: /readings\[|\.(point|base|from_side_seam)$/,
};
