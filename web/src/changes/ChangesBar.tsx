import { Select } from "antd";
import { clsx } from "clsx";
import { memo } from "react";
import type { ChangeKey, Solved } from "../api/client";
import styles from "./changes.module.css";

interface Props {
  solved: Solved | null;
  picked: ChangeKey;
  onPick: (key: ChangeKey) => void;
}

/** Everything that changes on this garment, and what else could. */
export const ChangesBar = memo(function ChangesBar({ solved, picked, onPick }: Props) {
  const there = solved?.try_ons[0]?.changes ?? [];
  const all = solved?.changeable ?? [];
  const begun = all.filter((c) => c.key === picked && there.every((t) => t.key !== picked));
  const open = [...there, ...begun];
  const others = all.filter((c) => open.every((o) => o.key !== c.key));
  return (
    <nav className={styles["changes"]} aria-label="What changes">
      {open.map(({ key, name }) => (
        <button
          key={key}
          type="button"
          className={clsx(styles["change"], key === picked && styles["picked"])}
          aria-pressed={key === picked}
          data-change={key}
          onClick={() => {
            onPick(key);
          }}
        >
          {name}
        </button>
      ))}
      <Select
        aria-label="Change something else"
        placeholder="something else …"
        options={others.map(({ key, name }) => ({ value: key, label: name }))}
        value={null}
        popupMatchSelectWidth={false}
        onChange={(key: ChangeKey | null) => {
          if (key) onPick(key);
        }}
      />
    </nav>
  );
});
