import { Select } from "antd";
import { memo } from "react";
import type { Garment, SolvedTryOn } from "../api/client";
import { changeable, changesOf } from "./line";

interface Props {
  garment: Garment;
  result: SolvedTryOn | undefined;
  picked: string;
  onPick: (key: string) => void;
}

/** Everything that changes on this garment, and what else could: seams, darts, elastic. */
export const ChangesBar = memo(function ChangesBar({ garment, result, picked, onPick }: Props) {
  const there = changesOf(result);
  const all = changeable(garment);
  const open = there.some((c) => c.value === picked)
    ? there
    : [...there, ...all.filter((c) => c.value === picked)];
  const others = all.filter((c) => open.every((o) => o.value !== c.value));
  return (
    <nav className="changes" aria-label="What changes">
      {open.map(({ value, label }) => (
        <button
          key={value}
          type="button"
          className={value === picked ? "change picked" : "change"}
          aria-pressed={value === picked}
          data-change={value}
          onClick={() => {
            onPick(value);
          }}
        >
          {label}
        </button>
      ))}
      <Select
        aria-label="Change something else"
        placeholder="something else …"
        options={others}
        value={null}
        popupMatchSelectWidth={false}
        onChange={(value: string | null) => {
          if (value) onPick(value);
        }}
      />
    </nav>
  );
});
