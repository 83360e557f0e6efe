import { clsx } from "clsx";
import type { Editor } from "../editors";
import { DartSettings } from "./DartSettings";
import drawing from "../../drawing/drawing.module.css";

/** A pair of darts: pins along the fold. */
export const dart: Editor<"dart"> = {
  Settings: DartSettings,
  pins: { along: "from the point of the dart", from: "point" },
  legend: (line) => (
    <>
      <span className={clsx(drawing["key"], drawing["key-before"])}>middle of the dart</span>
      <span className={clsx(drawing["key"], drawing["key-after"])}>new fold depth, to either side</span>
      {line.strip.lines.some((lines) => lines.old_line) && (
        <span className={clsx(drawing["key"], drawing["key-fold"])}>fold as it is</span>
      )}
      <span>stations from the {line.datum}</span>
    </>
  ),
  withEnd: () => null,
  ownFaults: /readings\[|\.(point|base|from_side_seam)$/,
};
