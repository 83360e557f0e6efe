import { Button, Input, InputNumber, Select } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { v7 as newId } from "uuid";
import type { Workroom } from "../api/client";
import { today } from "../document/today";
import styles from "./evenings.module.css";

/** A workroom, and how a part of it is set. */
export interface OfRoom {
  room: Workroom;
  onSet: (part: Partial<Workroom>) => void;
}

const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];

/** When there is time to sew: every week, and once. */
export function Pattern({ room, onSet }: OfRoom) {
  const [day, setDay] = useState(1);
  const [date, setDate] = useState("");
  const [start, setStart] = useState("19:30");
  const [minutes, setMinutes] = useState<number | null>(75);
  const [helper, setHelper] = useState("");
  const zones = Intl.supportedValuesOf("timeZone");
  const add = () => {
    if (!minutes || !start) return;
    const evening = {
      id: newId(),
      start: `${start}:00`,
      minutes,
      ...(helper.trim() && { helper: helper.trim() }),
    };
    if (date) onSet({ single: [...(room.single ?? []), { ...evening, date }] });
    else onSet({ weekly: [...(room.weekly ?? []), { ...evening, day }] });
    setDate("");
    setHelper("");
  };
  const clock = (time: string) => time.slice(0, 5);
  return (
    <section className={clsx("sheet", styles["side"])} aria-label="When you sew">
      <h2>When you sew</h2>
      <ul className={styles["plain"]}>
        {(room.weekly ?? []).map((weekly) => (
          <li key={weekly.id}>
            {DAYS[weekly.day - 1]}s, {clock(weekly.start)}, {weekly.minutes} min
            {weekly.helper && `, with ${weekly.helper}`}{" "}
            <Button
              size="small"
              type="text"
              aria-label={`No ${DAYS[weekly.day - 1] ?? ""}s any more`}
              onClick={() => {
                onSet({
                  weekly: (room.weekly ?? []).filter((other) => other.id !== weekly.id),
                  left_out: (room.left_out ?? []).filter((out) => out.weekly !== weekly.id),
                });
              }}
            >
              take out
            </Button>
          </li>
        ))}
        {(room.single ?? []).map((single) => (
          <li key={single.id}>
            {single.date}, {clock(single.start)}, {single.minutes} min
            {single.helper && `, with ${single.helper}`}{" "}
            <Button
              size="small"
              type="text"
              aria-label={`Not on ${single.date}`}
              onClick={() => {
                onSet({ single: (room.single ?? []).filter((other) => other.id !== single.id) });
              }}
            >
              take out
            </Button>
          </li>
        ))}
      </ul>
      <form
        className={styles["fields"]}
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <Select
          aria-label="Which day"
          value={date ? 0 : day}
          popupMatchSelectWidth={false}
          options={[
            ...DAYS.map((label, n) => ({ value: n + 1, label: `every ${label}` })),
            { value: 0, label: "once, on" },
          ]}
          onChange={(chosen) => {
            if (chosen === 0) setDate(today());
            else {
              setDate("");
              setDay(chosen);
            }
          }}
        />
        {date && (
          <input
            type="date"
            aria-label="On which day"
            className={styles["date"]}
            value={date}
            onChange={(event) => {
              setDate(event.target.value);
            }}
          />
        )}
        <input
          type="time"
          aria-label="From when"
          className={styles["date"]}
          value={start}
          onChange={(event) => {
            setStart(event.target.value);
          }}
        />
        <InputNumber
          aria-label="For how long"
          min={1}
          max={960}
          value={minutes}
          suffix="min"
          onChange={setMinutes}
        />
        <Input
          aria-label="Who helps"
          placeholder="who helps"
          maxLength={60}
          value={helper}
          onChange={(event) => {
            setHelper(event.target.value);
          }}
        />
        <Button htmlType="submit" disabled={!minutes}>
          Add
        </Button>
      </form>
      <label>
        Time zone{" "}
        <Select
          aria-label="Time zone"
          showSearch
          popupMatchSelectWidth={false}
          value={room.time_zone ?? "Etc/UTC"}
          options={[...new Set([room.time_zone ?? "Etc/UTC", ...zones])].map((zone) => ({
            value: zone,
            label: zone,
          }))}
          onChange={(time_zone) => {
            onSet({ time_zone });
          }}
        />
      </label>
    </section>
  );
}
