import { clsx } from "clsx";
import type { Editor } from "../editors";
import { LineSettings } from "./LineSettings";
import styles from "../changes.module.css";
import drawing from "../../drawing/drawing.module.css";

/** A seam: pins and a line between two ends. */
export const seam: Editor<"seam"> = {
  Settings: LineSettings,
  pins: { along: "up the seam", from: "hem" },
  legend: (line) => (
    <>
      <span className={clsx(drawing["key"], drawing["key-before"])}>old stitching</span>
      <span className={clsx(drawing["key"], drawing["key-after"])}>new stitching</span>
      <span className={clsx(drawing["key"], styles["key-band"])}>
        where pins may lie, {line.tolerance.text} beside it at most
      </span>
      <span className={clsx(drawing["key"], styles["key-channel"])}>
        allowance, {line.allowance.text} each edge
      </span>
      {line.strip.blocks.length > 0 && (
        <span className={clsx(drawing["key"], styles["key-block"])}>in the way</span>
      )}
      <span>stations from the {line.datum}</span>
    </>
  ),
  withEnd: ({ upper }, station) => ({
    upper:
      upper?.end === "straight_through"
        ? { end: "straight_through", from: station }
        : { end: "meets_old_stitching", station },
  }),
  ownFaults: /readings\[|spread/,
};
