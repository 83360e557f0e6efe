import { DeleteOutlined } from "@ant-design/icons";
import { Button, Popover, Select, type InputRef } from "antd";
import { clsx } from "clsx";
import { useRef, useState } from "react";
import { v7 as newId } from "uuid";
import type { Complaint, GarmentSide, Reading, SolvedLine } from "../api/client";
import { Words } from "../drawing/Words";
import { LengthField } from "../document/LengthField";
import styles from "./changes.module.css";

type How = Reading["how"];

/** A way to measure: in the list, and in a word where there is no room. */
interface Way {
  value: How;
  label: string;
  short?: string;
}

const shortOf = (ways: Way[], how: unknown) => {
  const way = ways.find((one) => one.value === how);
  return way?.short ?? way?.label;
};

const SIDES: { value: GarmentSide; label: string }[] = [
  { value: "left", label: "left" },
  { value: "right", label: "right" },
];

interface Props {
  /** What they are on, in words. */
  what: string;
  /** Where stations are measured from. */
  from: string;
  readings: Reading[];
  solved: SolvedLine | null;
  /** How a pin on it can be measured. */
  ways: Way[];
  /** What is wrong with a reading, by its number and field. */
  complaint: (reading: number, field: string) => Complaint | undefined;
  picked: number | null;
  onPick: (pin: number) => void;
  onChange: (readings: Reading[]) => void;
}

/** The pins as they were read, and a row for the next one: station, Enter, amount, Enter. */
export function PinTable(props: Props) {
  const { what, from, readings, solved, complaint, picked, onPick, onChange } = props;
  const { ways } = props;
  const hasSides = solved?.has_sides ?? true;
  const replace = (index: number, change: Partial<Reading>) => {
    onChange(readings.map((r, i) => (i === index ? { ...r, ...change } : r)));
  };
  return (
    <table className={styles["pins"]}>
      <caption className="unseen">
        Pins on the {what}
        {hasSides && ", sides are the garment’s"}
      </caption>
      <thead>
        <tr>
          <th scope="col">From {from}</th>
          <th scope="col">Read</th>
          <th scope="col">How</th>
          <th scope="col">{hasSides ? "Garment’s" : <span className="unseen">No sides</span>}</th>
          <th scope="col" className={styles["pins-figures"]}>
            Altogether
          </th>
          <th scope="col">
            <span className="unseen">Take out</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {readings.map((reading, index) => {
          const pin = solved?.pins[index];
          const key = reading.id ?? String(index);
          return (
            <tr
              key={key}
              className={clsx(picked === index && styles["picked"])}
              onFocus={() => {
                onPick(index);
              }}
            >
              <td data-label={`from ${from}`}>
                <LengthField
                  label={`Pin ${index + 1}: station from the ${from}`}
                  shown={pin?.station.text ?? reading.station}
                  keep={`${key}.station`}
                  complaint={complaint(index, "station")}
                  onRead={(station) => {
                    replace(index, { station });
                  }}
                />
              </td>
              <td data-label="read">
                <LengthField
                  label={`Pin ${index + 1}: amount read`}
                  shown={pin?.read ?? reading.amount}
                  keep={`${key}.amount`}
                  complaint={complaint(index, "amount")}
                  onRead={(amount) => {
                    replace(index, { amount });
                  }}
                />
              </td>
              <td data-label="how">
                <Select<How>
                  aria-label={`Pin ${index + 1}: how it was measured`}
                  options={ways}
                  labelRender={(shown) => shortOf(ways, shown.value)}
                  value={reading.how}
                  popupMatchSelectWidth={false}
                  onChange={(how) => {
                    replace(index, { how });
                  }}
                />
              </td>
              {hasSides ? (
                <td data-label="garment’s">
                  <Select<GarmentSide>
                    aria-label={`Pin ${index + 1}: side of the garment`}
                    options={SIDES}
                    value={reading.side}
                    onChange={(side) => {
                      replace(index, { side });
                    }}
                  />
                </td>
              ) : (
                <NoSides />
              )}
              <td className={clsx(styles["pins-figures"], "figure")} data-label="altogether">
                {pin && (
                  <Popover trigger={["hover", "focus"]} content={<Words>{pin.sum}</Words>}>
                    <button type="button" className={styles["explained"]} aria-label={pin.sum}>
                      <Words>{pin.whole.text}</Words>
                    </button>
                  </Popover>
                )}
                {pin?.chalked && (
                  <small className={clsx(styles["chalked"], "quiet")}>
                    <Words>{pin.chalked}</Words>
                  </small>
                )}
              </td>
              <td>
                <Button
                  type="text"
                  icon={<DeleteOutlined />}
                  aria-label={`Take out pin ${index + 1}`}
                  onClick={() => {
                    onChange(readings.filter((_, i) => i !== index));
                  }}
                />
              </td>
            </tr>
          );
        })}
        <NextPin
          from={from}
          ways={ways}
          hasSides={hasSides}
          last={readings.at(-1)}
          onAdd={(reading) => {
            onChange([...readings, reading]);
          }}
        />
      </tbody>
    </table>
  );
}

/** A seam down the middle is there once. */
const NoSides = () => <td className="quiet">–</td>;

interface NextProps {
  from: string;
  ways: Way[];
  hasSides: boolean;
  last: Reading | undefined;
  onAdd: (reading: Reading) => void;
}

function NextPin({ from, ways, hasSides, last, onAdd }: NextProps) {
  const [station, setStation] = useState<string | null>(null);
  const [how, setHow] = useState<How>(last?.how ?? "fold");
  const [side, setSide] = useState<GarmentSide>(last?.side ?? "left");
  const stationField = useRef<InputRef>(null);
  const amountField = useRef<InputRef>(null);
  return (
    <tr className={styles["next-pin"]}>
      <td data-label={`from ${from}`}>
        <LengthField
          label={`Next pin: station from the ${from}`}
          shown={station ?? ""}
          placeholder="next"
          fieldRef={stationField}
          onRead={setStation}
          onEnter={() => amountField.current?.focus()}
        />
      </td>
      <td data-label="read">
        <LengthField
          label="Next pin: amount read"
          shown=""
          placeholder="read"
          fieldRef={amountField}
          onRead={(amount) => {
            if (station === null) {
              stationField.current?.focus();
              return;
            }
            onAdd({ id: newId(), side: hasSides ? side : "left", station, amount, how });
            setStation(null);
            stationField.current?.focus();
          }}
        />
      </td>
      <td data-label="how">
        <Select<How>
          aria-label="Next pin: how it was measured"
          options={ways}
          labelRender={(shown) => shortOf(ways, shown.value)}
          value={how}
          popupMatchSelectWidth={false}
          onChange={setHow}
        />
      </td>
      {hasSides ? (
        <td data-label="garment’s">
          <Select<GarmentSide>
            aria-label="Next pin: side of the garment"
            options={SIDES}
            value={side}
            onChange={setSide}
          />
        </td>
      ) : (
        <NoSides />
      )}
      <td colSpan={2} className="quiet">
        <kbd>Enter</kbd> adds
      </td>
    </tr>
  );
}
