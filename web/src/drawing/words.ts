import type { Figure, LevelResult } from "../api/client";

/** Ease against what is usual, in a word. */
export const WORDS = {
  too_tight: "too tight",
  close: "close",
  usual: "usual",
  roomy: "roomy",
  loose: "loose",
} as const;

/** Whose girth a level is. */
export const OF: Record<LevelResult["of"], string> = {
  garment: "all round",
  each_leg: "each leg",
  left_leg: "left leg",
  right_leg: "right leg",
  each_sleeve: "each sleeve",
  left_sleeve: "left sleeve",
  right_sleeve: "right sleeve",
};

/** A figure without its unit, where the heading has it or another figure follows. */
export const bare = ({ text }: Figure): string => text.slice(0, text.lastIndexOf(" "));

/** A word of a document as one writes it. */
export const spoken = (word: string): string => word.replaceAll("fish_eye", "fish-eye").replaceAll("_", " ");
