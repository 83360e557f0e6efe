import { useMutation } from "@tanstack/react-query";
import { Button, Input } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { v7 as newId } from "uuid";
import { answer, api } from "../api/client";
import { today } from "../document/today";
import styles from "./evenings.module.css";
import type { OfRoom } from "./Pattern";

/** What garments are to be worn at. */
export function Events({ room, onSet }: OfRoom) {
  const [name, setName] = useState("");
  const [date, setDate] = useState("");
  const isPast = date !== "" && date < today();
  return (
    <section className={clsx("sheet", styles["side"])} aria-label="What it has to be ready for">
      <h2>What it has to be ready for</h2>
      <ul className={styles["plain"]}>
        {(room.events ?? []).map((event) => (
          <li key={event.id}>
            {event.name}, {event.date}
            {event.time && `, ${event.time.slice(0, 5)}`}
            {event.date < today() && <span className={styles["badge"]}>past</span>}{" "}
            <Button
              size="small"
              type="text"
              aria-label={`Take out ${event.name}`}
              onClick={() => {
                onSet({ events: (room.events ?? []).filter((other) => other.id !== event.id) });
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
          if (!name.trim() || !date) return;
          onSet({ events: [...(room.events ?? []), { id: newId(), name: name.trim(), date }] });
          setName("");
          setDate("");
        }}
      >
        <Input
          aria-label="What is it"
          placeholder="a concert"
          maxLength={100}
          value={name}
          onChange={(event) => {
            setName(event.target.value);
          }}
        />
        <input
          type="date"
          aria-label="Its day"
          className={styles["date"]}
          value={date}
          onChange={(event) => {
            setDate(event.target.value);
          }}
        />
        <Button htmlType="submit" disabled={!name.trim() || !date}>
          Add
        </Button>
        {isPast && <p className="field-trouble">That day is past: everything for it would be late.</p>}
      </form>
    </section>
  );
}

/** The evenings as a calendar: a file, and an address that can be closed again. */
export function CalendarOf({ hasCalendar }: { hasCalendar: boolean }) {
  const [path, setPath] = useState<string | null>(null);
  const [isOpen, setIsOpen] = useState(hasCalendar);
  const open = useMutation({
    mutationFn: () => answer(api.POST("/api/v1/calendar")),
    onSuccess: ({ path }) => {
      setPath(path);
      setIsOpen(true);
    },
  });
  const close = useMutation({
    mutationFn: () => answer(api.DELETE("/api/v1/calendar")),
    onSuccess: () => {
      setPath(null);
      setIsOpen(false);
    },
  });
  return (
    <section className={clsx("sheet", styles["side"])} aria-label="Calendar">
      <h2>Calendar</h2>
      <p>
        <a href="/api/v1/calendar.ics" download="vemble.ics">
          As a file
        </a>
        , or as an address that a calendar reads by itself. Whoever has the address sees what is sewn when.
      </p>
      {path && (
        <Input
          aria-label="Address of the calendar"
          readOnly
          value={`${location.origin}${path}`}
          onFocus={(event) => {
            event.target.select();
          }}
        />
      )}
      <div className={styles["fields"]}>
        <Button
          loading={open.isPending}
          onClick={() => {
            open.mutate();
          }}
        >
          {isOpen ? "A new address, closing the one before" : "Make an address"}
        </Button>
        {isOpen && (
          <Button
            loading={close.isPending}
            onClick={() => {
              close.mutate();
            }}
          >
            Close it
          </Button>
        )}
      </div>
    </section>
  );
}
