import type { Figure } from "../api/client";

/** A figure without its unit, where the heading has it or another figure follows. */
export const bare = ({ text }: Figure): string => text.slice(0, text.lastIndexOf(" "));
