import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Checkbox, Input, InputNumber, Select, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { Link } from "react-router";
import { v7 as newId } from "uuid";
import {
  answer,
  api,
  problemOf,
  type EveningLine,
  type PieceLine,
  type Workroom,
  type WorkroomState,
} from "../api/client";
import * as queries from "../api/queries";
import { Saved } from "../document/Saved";
import { today } from "../document/today";
import { UndoTools } from "../document/UndoTools";
import { useKept, type Kept } from "../document/useKept";
import { useNews } from "../document/useNews";
import { EveningHead, Shelf } from "../plan/PlanStage";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import styles from "./evenings.module.css";

/** All garments' evenings together. */
export default function EveningsPage() {
  const room = useQuery({ ...queries.workroom, staleTime: Infinity, gcTime: 0 });
  if (room.isError) return <Trouble problem={problemOf(room.error)} retry={() => void room.refetch()} />;
  if (!room.data)
    return (
      <main className={styles["page"]}>
        <Skeleton active paragraph={{ rows: 12 }} />
      </main>
    );
  return <Evenings stored={room.data} />;
}

function Evenings({ stored }: { stored: WorkroomState }) {
  const { tape } = useSettings();
  const client = useQueryClient();
  const kept = useKept<Workroom>({
    id: "workroom",
    initial: stored.workroom,
    version: stored.version,
    draft: null,
    store: async (version, workroom) => {
      const made = await answer(
        api.PUT("/api/v1/workroom", { params: { query: { tape } }, body: { version, workroom } }),
      );
      await client.invalidateQueries(queries.everythingAhead);
      return { version: made.version };
    },
  });
  const ahead = useQuery(queries.ahead(tape, undefined, true));
  useNews();
  if (ahead.isError) return <Trouble problem={problemOf(ahead.error)} retry={() => void ahead.refetch()} />;
  const told = ahead.data;
  const set = (part: Partial<Workroom>) => {
    kept.change({ ...kept.value, ...part });
  };
  return (
    <main className={styles["page"]}>
      <div className={styles["head"]}>
        <h1>Evenings</h1>
        <UndoTools canUndo={kept.canUndo} canRedo={kept.canRedo} onUndo={kept.undo} onRedo={kept.redo} />
        <Saved isStored={kept.isStored} problem={kept.problem} onRetry={kept.retry} />
      </div>
      {told ? (
        <>
          <p className={styles["what-now"]}>{told.what_now}</p>
          <p className="quiet">{told.left} of sewing are left over everything.</p>
          <TimeNow />
          {told.late_minutes > 0 && (
            <section className={clsx("sheet", styles["late-box"])} aria-label="Too late">
              <h2>⚠ {told.late} of work come too late</h2>
              <ol className={styles["ways"]}>
                {told.ways_out.map((way) => {
                  const { evening } = way;
                  return (
                    <li key={way.title}>
                      <strong>{way.title}.</strong> {way.says} <span className="quiet">{way.costs}</span>{" "}
                      {evening && !evening.helped && (
                        <Button
                          size="small"
                          onClick={() => {
                            const single = {
                              id: newId(),
                              date: evening.date,
                              start: evening.start,
                              minutes: evening.minutes,
                            };
                            set({ single: [...(kept.value.single ?? []), single] });
                          }}
                        >
                          Sew then
                        </Button>
                      )}
                      {way.garment && <Link to={`/garments/${way.garment}/plan`}>to its plan</Link>}
                    </li>
                  );
                })}
              </ol>
            </section>
          )}
          <div className={styles["columns"]}>
            <section aria-label="What is sewn when">
              {told.evenings.length === 0 && (
                <p className={clsx("sheet", styles["empty"])}>
                  There are no evenings yet. Say beside this when you sew, and everything on the rail is laid
                  over them.
                </p>
              )}
              {told.evenings.map((evening) => (
                <Evening
                  key={evening.begins}
                  evening={evening}
                  onLeaveOut={() => {
                    if (evening.is_weekly) {
                      const out = { weekly: evening.source, date: evening.date };
                      set({ left_out: [...(kept.value.left_out ?? []), out] });
                    } else {
                      set({
                        single: (kept.value.single ?? []).filter((single) => single.id !== evening.source),
                      });
                    }
                  }}
                />
              ))}
            </section>
            <div className={styles["settings"]}>
              <Pattern room={kept.value} onSet={set} />
              <Events room={kept.value} onSet={set} />
              <CalendarOf hasCalendar={stored.has_calendar} />
              {told.learnt.length > 0 && (
                <section className={clsx("sheet", styles["side"])} aria-label="Pace">
                  <h2>How long it really takes</h2>
                  <ul className={styles["plain"]}>
                    {told.learnt.map((line) => (
                      <li key={line.step}>
                        {line.name}: {line.words}, timed {line.count === 1 ? "once" : `${line.count} times`}
                      </li>
                    ))}
                  </ul>
                </section>
              )}
              <p className="quiet">{told.seeks}</p>
            </div>
          </div>
          <Drawer kept={kept} />
          <Shelf ahead={told} />
        </>
      ) : (
        <Skeleton active paragraph={{ rows: 12 }} />
      )}
    </main>
  );
}

/** One evening, with what is done in it. */
function Evening({ evening, onLeaveOut }: { evening: EveningLine; onLeaveOut?: () => void }) {
  return (
    <article className={clsx("sheet", styles["evening"])}>
      <div className={styles["evening-head"]}>
        <EveningHead evening={evening} />
        {onLeaveOut && (
          <Button size="small" type="text" aria-label={`${evening.words} falls out`} onClick={onLeaveOut}>
            falls out
          </Button>
        )}
      </div>
      {evening.pieces.length === 0 ? (
        <p className="quiet">Nothing is planned.</p>
      ) : (
        <ol className={styles["pieces"]}>
          {evening.pieces.map((piece) => (
            <Piece key={`${piece.garment}${piece.task}${piece.piece ?? ""}`} piece={piece} />
          ))}
        </ol>
      )}
    </article>
  );
}

function Piece({ piece }: { piece: PieceLine }) {
  return (
    <li className={clsx(styles["piece"], piece.is_gate && styles["gate"], piece.is_late && styles["late"])}>
      <span className={styles["at"]}>{piece.at}</span>
      <span>
        {piece.title} <span className="quiet">{piece.minutes} min</span>
        {piece.piece && <span className="quiet"> ({piece.piece})</span>}
        {piece.is_gate && <span className={styles["badge"]}>gate</span>}
        {piece.is_for_good && <span className={styles["badge"]}>cannot be undone</span>}
        {piece.is_late && <span className={styles["badge"]}>too late</span>}
      </span>
      <Link to={`/garments/${piece.garment}/sew`}>{piece.garment_name}</Link>
    </li>
  );
}

/** "I have 45 minutes now." */
function TimeNow() {
  const { tape } = useSettings();
  const [minutes, setMinutes] = useState<number | null>(45);
  const [helper, setHelper] = useState(false);
  const ask = useMutation({
    mutationFn: () =>
      answer(api.GET("/api/v1/ahead/now", { params: { query: { tape, minutes: minutes ?? 45, helper } } })),
  });
  return (
    <section className={clsx("sheet", styles["now"])} aria-label="Time now">
      <form
        className={styles["fields"]}
        onSubmit={(event) => {
          event.preventDefault();
          if (minutes) ask.mutate();
        }}
      >
        <span>I have</span>
        <InputNumber
          aria-label="How many minutes there are"
          min={1}
          max={960}
          value={minutes}
          onChange={setMinutes}
        />
        <span>minutes now</span>
        <Checkbox
          checked={helper}
          onChange={(event) => {
            setHelper(event.target.checked);
          }}
        >
          and somebody to help
        </Checkbox>
        <Button htmlType="submit" disabled={!minutes} loading={ask.isPending}>
          What to do?
        </Button>
      </form>
      {ask.data && <Evening evening={ask.data} />}
      {ask.isError && (
        <p className="field-trouble" role="alert">
          {problemOf(ask.error).title}. {problemOf(ask.error).detail}
        </p>
      )}
    </section>
  );
}

const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];

interface OfRoom {
  room: Workroom;
  onSet: (part: Partial<Workroom>) => void;
}

/** When there is time to sew: every week, and once. */
function Pattern({ room, onSet }: OfRoom) {
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

/** What garments are to be worn at. */
function Events({ room, onSet }: OfRoom) {
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
function CalendarOf({ hasCalendar }: { hasCalendar: boolean }) {
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

/** What is in the drawer, as it was counted. */
function Drawer({ kept }: { kept: Kept<Workroom> }) {
  const words = useQuery(queries.words);
  const [kind, setKind] = useState("thread");
  const [which, setWhich] = useState("");
  const [amount, setAmount] = useState<number | null>(null);
  const kinds = words.data?.supply ?? [];
  const stock = kept.value.stock ?? [];
  return (
    <section className={clsx("sheet", styles["side"])} aria-label="The drawer">
      <h2>In the drawer</h2>
      <ul className={clsx(styles["plain"], styles["wrap"])}>
        {stock.map((line) => (
          <li key={line.id}>
            {kinds.find((k) => k.value === line.kind)?.words}
            {line.which && `, ${line.which}`}{" "}
            <Button
              size="small"
              type="text"
              aria-label="Take it out of the drawer"
              onClick={() => {
                kept.change({ ...kept.value, stock: stock.filter((other) => other.id !== line.id) });
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
          if (!amount) return;
          const line = {
            id: newId(),
            kind: kind as NonNullable<Workroom["stock"]>[number]["kind"],
            ...(which.trim() && { which: which.trim() }),
            amount,
            counted: new Date().toISOString(),
          };
          kept.change({ ...kept.value, stock: [...stock, line] });
          setWhich("");
          setAmount(null);
        }}
      >
        <Select
          aria-label="What is in the drawer"
          value={kind}
          popupMatchSelectWidth={false}
          options={kinds.map((k) => ({ value: k.value, label: k.words }))}
          onChange={setKind}
        />
        <Input
          aria-label="Which"
          placeholder="which: for corduroy, black"
          maxLength={100}
          value={which}
          onChange={(event) => {
            setWhich(event.target.value);
          }}
        />
        <InputNumber
          aria-label="Centimetres, or pieces"
          placeholder="cm, or pieces"
          min={1}
          max={1_000_000}
          value={amount}
          onChange={setAmount}
        />
        <Button htmlType="submit" disabled={!amount}>
          Count it
        </Button>
      </form>
    </section>
  );
}
