import { Select } from "antd";
import type { SidePolicy } from "../api/client";
import { useWords } from "../document/useWords";
import styles from "./changes.module.css";

const BY_THE_PINS = "by_the_pins";

interface Props {
  sides: SidePolicy | null;
  onChange: (sides: SidePolicy | null) => void;
}

/** How left and right are made to agree. */
export function SidesSetting({ sides, onChange }: Props) {
  const words = useWords();
  return (
    <div>
      <span className={styles["label"]}>Left and right</span>
      <Select<SidePolicy | typeof BY_THE_PINS>
        aria-label="How left and right are made to agree"
        options={[
          { value: BY_THE_PINS, label: "as the pins suggest" },
          ...words.options<SidePolicy>("sides"),
        ]}
        value={sides ?? BY_THE_PINS}
        popupMatchSelectWidth={false}
        onChange={(policy) => {
          onChange(policy === BY_THE_PINS ? null : policy);
        }}
      />
    </div>
  );
}
