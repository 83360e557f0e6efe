/**
 * Dye plants on unbleached cloth: calico ground, walnut, woad, madder, weld, and iron-black ink; by day and by lamp. The
 * one place that names a colour: style sheets have each as `--name`, the components' theme takes them from here.
 */
const COLOURS = {
  calico: ["#f1e8d4", "#17140f"],
  paper: ["#fbf7ec", "#1f1b16"],
  /** The ground of a field and of what opens over a sheet. */
  field: ["#fffdf6", "#29241d"],
  raised: ["#fffdf6", "#2f2921"],
  line: ["#ddd0b4", "#3d362b"],
  "line-strong": ["#b9a888", "#5d5241"],
  ink: ["#211d19", "#f1e9d8"],
  quiet: ["#5f5443", "#bdb09a"],
  /** 5.5 : 1 and more on the ground of a field (WCAG 2.2, 1.4.3 asks for 4.5). */
  placeholder: ["#6f624f", "#b5a78e"],
  walnut: ["#553820", "#d3b48c"],
  woad: ["#2c5a80", "#93bad8"],
  "woad-soft": ["#bcd0de", "#2f4759"],
  madder: ["#9a2b23", "#f0948a"],
  "madder-soft": ["#edcdc4", "#54302b"],
  weld: ["#8a6400", "#e6c254"],
  "weld-soft": ["#f3dd94", "#4a3d12"],
  good: ["#3f6330", "#a9c79a"],
  tape: ["#f0cf6a", "#b8933a"],
  "tape-ink": ["#3a2a08", "#1b1403"],
  /** Chosen, and under the pointer, in a list and on a switch. */
  trough: ["#ece1c8", "#2b261f"],
  chosen: ["#ece1c8", "#4a4032"],
  hovered: ["#f5eeda", "#38301f"],
  "chosen-hovered": ["#e4d6b4", "#54492f"],
  /** A note over everything, and what stands in it. */
  note: ["#3a2a1c", "#4a4032"],
  "note-ink": ["#fbf7ec", "#fbf7ec"],
  /** Lines on cloth of any colour. */
  outline: ["#1a120a", "#1a120a"],
} as const;

type Palette = Record<keyof typeof COLOURS, string>;

/** The colours by day, or by lamp. */
export const paletteOf = (dark: boolean): Palette =>
  Object.fromEntries(
    Object.entries(COLOURS).map(([name, [day, lamp]]) => [name, dark ? lamp : day]),
  ) as Palette;

/** Hands the colours to the style sheets. */
export function paint(dark: boolean): void {
  const { style, dataset } = document.documentElement;
  dataset["light"] = dark ? "dark" : "light";
  for (const [name, colour] of Object.entries(paletteOf(dark))) style.setProperty(`--${name}`, colour);
}
