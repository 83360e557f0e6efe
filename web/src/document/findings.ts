import type { FindingKey } from "../api/client";

/** A finding as text, to tell one from another; keys of one finding are written alike. */
export const nameOf = ({ rule, change, level, side, end, at, partner }: FindingKey): string =>
  [rule, change, level, side, end, at, partner].map((part) => part ?? "").join(" ");
