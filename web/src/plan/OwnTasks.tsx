import { Button, Input, InputNumber, Select } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { v7 as newId } from "uuid";
import { type GarmentAhead } from "../api/client";
import styles from "./plan.module.css";
import type { OfWishes } from "./useWishes";

/** Tasks of one's own. */
export function OwnTasks({ own, wishes, onSet }: OfWishes & { own: GarmentAhead }) {
  const [title, setTitle] = useState("");
  const [minutes, setMinutes] = useState<number | null>(20);
  const [before, setBefore] = useState<string | null>(null);
  const add = () => {
    if (!title.trim() || !minutes) return;
    const task = { id: newId(), title: title.trim(), minutes, ...(before && { before: [before] }) };
    onSet({ own: [...(wishes.own ?? []), task] });
    setTitle("");
    setBefore(null);
  };
  return (
    <section className={clsx("sheet", styles["own"])} aria-label="Your own tasks">
      <h2>Your own tasks</h2>
      <ul className={styles["plain"]}>
        {(wishes.own ?? []).map((task) => (
          <li key={task.id}>
            {task.title}, {task.minutes} min{" "}
            <Button
              size="small"
              type="text"
              aria-label={`Take out ${task.title}`}
              onClick={() => {
                onSet({ own: (wishes.own ?? []).filter((other) => other.id !== task.id) });
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
        <Input
          aria-label="What is to be done"
          placeholder="dye the buttons"
          maxLength={200}
          value={title}
          onChange={(event) => {
            setTitle(event.target.value);
          }}
        />
        <InputNumber
          aria-label="How many minutes"
          min={1}
          max={600}
          value={minutes}
          suffix="min"
          onChange={setMinutes}
        />
        <Select
          aria-label="Before which task"
          allowClear
          showSearch={{ optionFilterProp: "label" }}
          placeholder="before which task"
          popupMatchSelectWidth={false}
          value={before}
          options={own.tasks.filter((t) => !t.is_own).map((t) => ({ value: t.key, label: t.title }))}
          onChange={(chosen: string | undefined) => {
            setBefore(chosen ?? null);
          }}
        />
        <Button htmlType="submit" disabled={!title.trim() || !minutes}>
          Add
        </Button>
      </form>
    </section>
  );
}
