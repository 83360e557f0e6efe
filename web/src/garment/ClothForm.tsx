import { useQuery } from "@tanstack/react-query";
import { AutoComplete, Checkbox, Input, InputNumber, Segmented, Select } from "antd";
import type { Cloth, Garment } from "../api/client";
import * as queries from "../api/queries";
import { useWords } from "../document/useWords";
import styles from "./lookover.module.css";

/** What the garment is called and what it is made of. A name that is known brings its usual properties along. */
export function ClothForm({ garment, onChange }: { garment: Garment; onChange: (garment: Garment) => void }) {
  const cloths = useQuery(queries.cloths);
  const words = useWords();
  const { cloth } = garment;
  const set = (change: Partial<Cloth>) => {
    onChange({ ...garment, cloth: { ...cloth, ...change } });
  };
  return (
    <div className={styles["cloth-form"]}>
      <div>
        <label className={styles["label"]} htmlFor="garment-name">
          Called
        </label>
        <Input
          id="garment-name"
          key={garment.name}
          maxLength={120}
          defaultValue={garment.name}
          onBlur={(event) => {
            const name = event.target.value.trim();
            if (name && name !== garment.name) onChange({ ...garment, name });
          }}
        />
      </div>
      <div>
        <label className={styles["label"]} htmlFor="garment-cloth">
          Cloth
        </label>
        <AutoComplete
          id="garment-cloth"
          key={cloth.name}
          aria-label="Cloth"
          defaultValue={cloth.name}
          options={(cloths.data ?? []).map((c) => ({ value: c.name }))}
          showSearch={{
            filterOption: (typed, option) => (option?.value ?? "").includes(typed.toLowerCase()),
          }}
          onSelect={(name: string) => {
            const known = cloths.data?.find((c) => c.name === name);
            if (known) onChange({ ...garment, cloth: { ...known, colour: cloth.colour } });
          }}
          onBlur={(event) => {
            const name = (event.target as HTMLInputElement).value.trim();
            if (name && name !== cloth.name) set({ name });
          }}
        />
      </div>
      <label>
        <span className={styles["label"]}>Colour</span>
        <input
          type="color"
          aria-label="Colour of the cloth"
          value={cloth.colour}
          onChange={(event) => {
            set({ colour: event.target.value });
          }}
        />
      </label>
      <div>
        <span className={styles["label"]}>Made</span>
        <Segmented<Cloth["structure"]>
          aria-label="Woven or knit"
          options={words.options<Cloth["structure"]>("structure")}
          value={cloth.structure}
          onChange={(structure) => {
            set({ structure });
          }}
        />
      </div>
      <div>
        <span className={styles["label"]}>Falls</span>
        <Segmented<Cloth["drape"]>
          aria-label="How it falls"
          options={words.options<Cloth["drape"]>("drape")}
          value={cloth.drape}
          onChange={(drape) => {
            set({ drape });
          }}
        />
      </div>
      <div>
        <span className={styles["label"]}>Weight</span>
        <Segmented<NonNullable<Cloth["weight"]>>
          aria-label="Weight"
          options={words.options<NonNullable<Cloth["weight"]>>("weight")}
          value={cloth.weight ?? "medium"}
          onChange={(weight) => {
            set({ weight });
          }}
        />
      </div>
      <div>
        <span className={styles["label"]}>Frays</span>
        <Segmented<Cloth["frays"]>
          aria-label="How much it frays"
          options={words.options<Cloth["frays"]>("frays")}
          value={cloth.frays}
          onChange={(frays) => {
            set({ frays });
          }}
        />
      </div>
      <div>
        <span className={styles["label"]}>Iron</span>
        <Select<NonNullable<Cloth["heat"]>>
          aria-label="How hot an iron it takes"
          options={words.options<NonNullable<Cloth["heat"]>>("heat")}
          value={cloth.heat ?? "warm"}
          onChange={(heat) => {
            set({ heat });
          }}
        />
      </div>
      <Percent
        label="Stretches across, %"
        most={200}
        value={cloth.stretch_percent ?? 0}
        onSet={(stretch_percent) => {
          set({ stretch_percent });
        }}
      />
      <Percent
        label="Still shrinks along, %"
        most={30}
        value={cloth.shrinks_along_percent ?? 0}
        onSet={(shrinks_along_percent) => {
          set({ shrinks_along_percent });
        }}
      />
      <Percent
        label="Still shrinks across, %"
        most={30}
        value={cloth.shrinks_across_percent ?? 0}
        onSet={(shrinks_across_percent) => {
          set({ shrinks_across_percent });
        }}
      />
      <Checkbox
        checked={cloth.shows_holes ?? false}
        onChange={(event) => {
          set({ shows_holes: event.target.checked });
        }}
      >
        old stitch holes show
      </Checkbox>
      <Checkbox
        checked={garment.toile ?? false}
        onChange={(event) => {
          onChange({ ...garment, toile: event.target.checked });
        }}
      >
        a toile: a trial in cheap cloth
      </Checkbox>
    </div>
  );
}

function Percent({
  label,
  most,
  value,
  onSet,
}: {
  label: string;
  most: number;
  value: number;
  onSet: (value: number) => void;
}) {
  return (
    <label>
      <span className={styles["label"]}>{label}</span>
      <InputNumber
        min={0}
        max={most}
        precision={0}
        value={value}
        onChange={(next) => {
          if (next !== null) onSet(next);
        }}
      />
    </label>
  );
}
