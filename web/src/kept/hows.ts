import type { Reading } from "../api/client";

/** A way to measure a pin: in a list, on a button, in a word where there is no room, and what the tape says. */
interface How {
  value: Reading["how"];
  label: string;
  button: string;
  short: string;
  title: string;
}

/** How a pin can be measured on a seam with these two edges. */
export function hows([one, other]: readonly string[] = ["front", "back"]): How[] {
  const only = (value: Reading["how"], edge = ""): How => {
    const short = edge.split(" ")[0] ?? edge;
    const title = `Taken from the ${edge} edge only`;
    return { value, label: `${edge} only`, button: `${short} only`, short, title };
  };
  return [
    {
      value: "fold",
      label: "fold",
      button: "fold",
      short: "fold",
      title: "From the old seam to the pin on folded cloth: comes off each edge",
    },
    {
      value: "whole",
      label: "whole pinch",
      button: "pinch",
      short: "pinch",
      title: "All that is pinched out: shared between the two edges",
    },
    only("front_panel", one),
    only("back_panel", other),
    {
      value: "gap",
      label: "gap (let out)",
      button: "gap",
      short: "gap",
      title: "The gap that appears in the opened seam: let out altogether",
    },
  ];
}
