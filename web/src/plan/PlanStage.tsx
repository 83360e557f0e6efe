import { useMutation, useQuery } from "@tanstack/react-query";
import { Button, Collapse, Input, InputNumber, Select, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { Link } from "react-router";
import { v7 as newId } from "uuid";
import {
  answer,
  api,
  problemOf,
  type Ahead,
  type EveningLine,
  type GarmentAhead,
  type GarmentState,
  type TaskLine,
  type WayOutLine,
  type Wishes,
} from "../api/client";
import * as queries from "../api/queries";
import { Saved } from "../document/Saved";
import { useWords } from "../document/useWords";
import { UndoTools } from "../document/UndoTools";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import { useAhead } from "./useWork";
import type { KeptWishes } from "./useWishes";
import styles from "./plan.module.css";

/** The plan of one garment: how it looks, ways out, and its chain of tasks laid over the evenings there are. */
export function PlanStage({ state, wishes }: { state: GarmentState; wishes: KeptWishes }) {
  const { tape } = useSettings();
  const now = useAhead(state.id, true);
  const [whatIf, setWhatIf] = useState<WayOutLine | null>(null);
  const tried = useMutation({
    mutationFn: (way: WayOutLine) =>
      answer(
        api.POST("/api/v1/ahead/what-if", {
          params: { query: { tape, garment: state.id } },
          body: way.wishes ? { garment: way.garment ?? state.id, wishes: way.wishes } : {},
        }),
      ),
  });
  if (now.isError) return <Trouble problem={problemOf(now.error)} retry={() => void now.refetch()} />;
  if (!now.data || !now.own) return <Skeleton active paragraph={{ rows: 12 }} />;
  const shown: Ahead = (whatIf && tried.data) || now.data;
  const own = shown.garments.find((g) => g.id === state.id) ?? now.own;
  return (
    <div className={styles["plan"]}>
      <section className={clsx("sheet", styles["outlook"])} aria-label="How it looks">
        <div className={styles["outlook-head"]}>
          <h2 className={outlookClass(own.outlook)}>{own.outlook_words}</h2>
          <UndoTools
            canUndo={wishes.canUndo}
            canRedo={wishes.canRedo}
            onUndo={wishes.undo}
            onRedo={wishes.redo}
          />
          <Saved isStored={wishes.isStored} problem={wishes.problem} onRetry={wishes.retry} />
        </div>
        <p className={styles["says"]}>{own.says}</p>
        {whatIf && (
          <div className={styles["what-if"]} role="status">
            <p>
              <strong>What if?</strong> {whatIf.title}. Nothing of this is stored until you keep it.
            </p>
            {whatIf.wishes && whatIf.garment === state.id && (
              <Button
                type="primary"
                onClick={() => {
                  if (whatIf.wishes) wishes.change(whatIf.wishes);
                  setWhatIf(null);
                }}
              >
                Keep it
              </Button>
            )}
            <Button
              onClick={() => {
                setWhatIf(null);
              }}
            >
              Back to the plan
            </Button>
          </div>
        )}
        <DayAndWorth state={state} own={own} wishes={wishes.value} onSet={wishes.set} />
      </section>
      {!whatIf && now.data.ways_out.length > 0 && (
        <WaysOut
          ways={now.data.ways_out}
          here={state.id}
          onTry={(way) => {
            setWhatIf(way);
            tried.mutate(way);
          }}
        />
      )}
      {own.lessons.length > 0 && (
        <section className={clsx("sheet", styles["know"])} aria-label="Learnt before">
          <h2>Learnt before</h2>
          <ul className={styles["lessons"]}>
            {own.lessons.map((lesson) => (
              <li key={lesson}>{lesson}</li>
            ))}
          </ul>
        </section>
      )}
      {own.tasks.length > 0 ? (
        <Chain ahead={shown} own={own} garment={state.id} />
      ) : (
        <section className={clsx("sheet", styles["empty"])}>
          <p>
            There is nothing to plan yet.{" "}
            <Link to={`/garments/${state.id}/try-on`}>Try it on and pin it</Link>, then every task follows
            from its lines.
          </p>
        </section>
      )}
      <OwnTasks own={own} wishes={wishes.value} onSet={wishes.set} />
      <Shelf ahead={shown} />
    </div>
  );
}

/** How an outlook is painted: fine, to be careful of, or wrong. */
function outlookClass(outlook: GarmentAhead["outlook"]): string | undefined {
  if (["in_time", "finished", "no_day"].includes(outlook)) return styles["fine"];
  if (["tight", "settle", "nothing_yet"].includes(outlook)) return styles["careful"];
  return styles["wrong"];
}

interface OfWishes {
  wishes: Wishes;
  onSet: (part: Partial<Wishes>) => void;
}

/** By when, and what is wanted most when time runs out. */
function DayAndWorth({ own, wishes, onSet }: OfWishes & { state: GarmentState; own: GarmentAhead }) {
  const words = useWords();
  const room = useQuery(queries.workroom);
  const events = room.data?.workroom.events ?? [];
  const value = wishes.event ?? (wishes.by ? "day" : "none");
  const changes = [...new Set(own.tasks.flatMap((task) => (task.change ? [task.change] : [])))];
  const dropped = (wishes.worth ?? []).filter((w) => w.worth === "not_this_time").map((w) => w.change);
  const named = [...new Set([...changes, ...dropped])];
  const titleOf = (change: string) =>
    own.tasks
      .find((task) => task.change === change && task.step === "stitch")
      ?.title.replace(/^Stitch the /, "")
      .replace(/, (left|right) .*$/, "") ?? change.split(".").slice(1).join(" ").replaceAll("_", " ");
  const schools = wishes.schools ?? {};
  const school = (part: Partial<NonNullable<Wishes["schools"]>>) => {
    onSet({ schools: { ...schools, ...part } });
  };
  return (
    <>
      <div className={styles["fields"]}>
        <label>
          Ready for{" "}
          <Select
            aria-label="Ready for"
            value={value}
            popupMatchSelectWidth={false}
            options={[
              { value: "none", label: "no day" },
              ...events.map((event) => ({ value: event.id, label: `${event.name}, ${event.date}` })),
              { value: "day", label: "a day of its own" },
            ]}
            onChange={(chosen) => {
              const day = wishes.by ?? new Date().toISOString().slice(0, 10);
              const isEvent = chosen !== "none" && chosen !== "day";
              onSet({ event: isEvent ? chosen : null, by: chosen === "day" ? day : null });
            }}
          />
        </label>
        {wishes.by && !wishes.event && (
          <input
            type="date"
            aria-label="The day"
            className={styles["date"]}
            value={wishes.by}
            onChange={(change) => {
              if (change.target.value) onSet({ by: change.target.value });
            }}
          />
        )}
        <p className="quiet">
          {own.done[0]} of {own.done[1]} tasks done
          {own.minutes_words && `, ${own.minutes_words} left`}
          {own.money?.saved && ` · saved so far: ${own.money.saved}`}
        </p>
      </div>
      {named.length > 0 && (
        <Collapse
          ghost
          size="small"
          items={[
            {
              key: "worth",
              label: "What is wanted most, and how it is sewn",
              children: (
                <div className={styles["fields"]}>
                  {named.map((change) => (
                    <label key={change}>
                      {titleOf(change)}{" "}
                      <Select
                        aria-label={`What the ${titleOf(change)} is worth`}
                        popupMatchSelectWidth={false}
                        value={wishes.worth?.find((w) => w.change === change)?.worth ?? "wanted"}
                        options={words.options("worth")}
                        onChange={(worth) => {
                          const others = (wishes.worth ?? []).filter((w) => w.change !== change);
                          onSet({ worth: [...others, { change, worth }] });
                        }}
                      />
                    </label>
                  ))}
                  {(
                    [
                      ["cutting", "cutting", "Cloth outside a seam"],
                      ["allowance", "allowance", "Allowances"],
                      ["dart_end", "dart_end", "Points of darts"],
                      ["sleeve", "sleeve", "Sleeves"],
                      ["hem", "sewn_by", "Hems"],
                    ] as const
                  ).map(([field, choice, label]) => (
                    <label key={field}>
                      {label}{" "}
                      <Select
                        aria-label={label}
                        allowClear
                        placeholder="as usual"
                        popupMatchSelectWidth={false}
                        value={schools[field] ?? null}
                        options={words.options(choice)}
                        onChange={(chosen) => {
                          school({ [field]: chosen });
                        }}
                      />
                    </label>
                  ))}
                </div>
              ),
            },
          ]}
        />
      )}
    </>
  );
}

/** What can be done where something comes too late: each was planned. */
function WaysOut({
  ways,
  here,
  onTry,
}: {
  ways: WayOutLine[];
  here: string;
  onTry: (way: WayOutLine) => void;
}) {
  return (
    <section className={clsx("sheet", styles["ways"])} aria-label="Ways out">
      <h2>Ways out</h2>
      <ol>
        {ways.map((way) => (
          <li key={way.title}>
            <strong>{way.title}.</strong> {way.says} <span className="quiet">{way.costs}</span>{" "}
            {way.wishes && way.garment === here && (
              <Button
                size="small"
                onClick={() => {
                  onTry(way);
                }}
              >
                What if?
              </Button>
            )}
            {way.wishes && way.garment !== here && (
              <Link to={`/garments/${way.garment ?? ""}/plan`}>to its plan</Link>
            )}
            {way.evening && <Link to="/evenings">to the evenings</Link>}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** Tasks as a chain with gates in it, laid over the evenings there are; what is done stands above. */
function Chain({ ahead, own, garment }: { ahead: Ahead; own: GarmentAhead; garment: string }) {
  const done = own.tasks.filter((task) => task.stands === "done" || task.stands === "skipped");
  const homeless = own.tasks.filter((task) => task.no_place && !done.includes(task));
  const evenings = ahead.evenings
    .map((evening) => ({
      evening,
      pieces: evening.pieces.filter((piece) => piece.garment === garment),
    }))
    .filter(({ pieces }) => pieces.length > 0);
  const last = evenings.at(-1)?.evening;
  const taskOf = (key: string) => own.tasks.find((task) => task.key === key);
  return (
    <section className={clsx("sheet", styles["chain"])} aria-label="Tasks">
      <h2>Tasks</h2>
      {done.length > 0 && (
        <Collapse
          ghost
          size="small"
          items={[
            {
              key: "done",
              label: `${done.length} done`,
              children: (
                <ul className={styles["links"]}>
                  {done.map((task) => (
                    <TaskNode key={task.key} task={task} />
                  ))}
                </ul>
              ),
            },
          ]}
        />
      )}
      {evenings.map(({ evening, pieces }) => (
        <div key={evening.begins} className={styles["evening"]}>
          <EveningHead evening={evening} />
          <ul className={styles["links"]}>
            {pieces.map((piece) => {
              const task = taskOf(piece.task);
              return task ? (
                <TaskNode
                  key={`${piece.task}${piece.piece ?? ""}`}
                  task={task}
                  at={piece.at}
                  piece={piece.piece ?? null}
                  isLate={piece.is_late}
                />
              ) : null;
            })}
          </ul>
        </div>
      ))}
      {own.due && last && (
        <p className={clsx(styles["due"], own.late_minutes > 0 ? styles["wrong"] : styles["fine"])}>
          To be ready by {own.due}
        </p>
      )}
      {homeless.length > 0 && (
        <div className={styles["evening"]}>
          <h3 className={styles["wrong"]}>No evening for these</h3>
          <ul className={styles["links"]}>
            {homeless.map((task) => (
              <TaskNode key={task.key} task={task} />
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

/** An evening: when, how long, who helps. */
export function EveningHead({ evening }: { evening: EveningLine }) {
  return (
    <h3>
      {evening.words}, {evening.hours}
      {evening.helper && <span className={styles["helper"]}>with {evening.helper}</span>}
      {evening.events.map((event) => (
        <span key={event} className={styles["event"]}>
          {event}
        </span>
      ))}
      <span className="quiet"> {evening.free_minutes} min free</span>
    </h3>
  );
}

/** One task of the chain: a bead, or a gate across it. */
function TaskNode({
  task,
  at,
  piece,
  isLate,
}: {
  task: TaskLine;
  at?: string;
  piece?: string | null;
  isLate?: boolean;
}) {
  const [open, setOpen] = useState(false);
  return (
    <li
      className={clsx(
        styles["link"],
        task.gate && styles["gate"],
        task.undone === "never" && styles["for-good"],
        (task.stands === "done" || task.stands === "skipped") && styles["is-done"],
        isLate && styles["is-late"],
      )}
    >
      <button
        type="button"
        className={styles["task"]}
        aria-expanded={open}
        onClick={() => {
          setOpen(!open);
        }}
      >
        {at && <span className={styles["at"]}>{at}</span>}
        <span>
          <strong>{task.title}</strong>
          {piece && <span className="quiet"> ({piece})</span>}
          <span className="quiet"> {task.minutes_words}</span>
          {task.gate && <span className={styles["badge"]}>gate</span>}
          {task.undone === "never" && <span className={styles["badge"]}>cannot be undone</span>}
          {task.helper && <span className={styles["badge"]}>with help</span>}
          {task.is_critical && <span className="unseen"> on the longest way</span>}
          {isLate && <span className={clsx(styles["badge"], styles["wrong"])}>too late</span>}
        </span>
      </button>
      {open && <TaskFacts task={task} />}
    </li>
  );
}

/** Everything that is known of a task. */
export function TaskFacts({ task }: { task: TaskLine }) {
  return (
    <dl className={styles["facts"]}>
      {task.about.length > 0 && (
        <>
          <dt>about</dt>
          <dd>{task.about.join(" · ")}</dd>
        </>
      )}
      {task.settings.map(({ what, words }) => (
        <div key={what}>
          <dt>{what}</dt>
          <dd>{words}</dd>
        </div>
      ))}
      {task.tools.length > 0 && (
        <>
          <dt>at hand</dt>
          <dd>{task.tools.join(", ")}</dd>
        </>
      )}
      {task.supplies.length > 0 && (
        <>
          <dt>uses</dt>
          <dd>{task.supplies.join(", ")}</dd>
        </>
      )}
      {task.needs.length > 0 && (
        <>
          <dt>after</dt>
          <dd>
            {task.needs.map((need) => (
              <span key={need.task} className={styles["need"]}>
                {need.title} <span className="quiet">({need.why})</span>
              </span>
            ))}
          </dd>
        </>
      )}
      {task.waits && (
        <>
          <dt>then</dt>
          <dd>nothing goes on for {task.waits}</dd>
        </>
      )}
      {task.no_place && (
        <>
          <dt>no evening</dt>
          <dd>{task.no_place}</dd>
        </>
      )}
      {task.notes.length > 0 && (
        <>
          <dt>noted</dt>
          <dd>{task.notes.join(" · ")}</dd>
        </>
      )}
      {task.took && (
        <>
          <dt>took</dt>
          <dd>{task.took} min</dd>
        </>
      )}
    </dl>
  );
}

/** Tasks of one's own. */
function OwnTasks({ own, wishes, onSet }: OfWishes & { own: GarmentAhead }) {
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

/** What is needed against what is there. */
export function Shelf({ ahead }: { ahead: Ahead }) {
  const needed = ahead.shelf;
  if (needed.length === 0) return null;
  return (
    <section className={clsx("sheet", styles["shelf"])} aria-label="Supplies">
      <h2>Supplies, for everything on the rail</h2>
      <table>
        <thead>
          <tr>
            <th scope="col">what</th>
            <th scope="col">needed</th>
            <th scope="col">there</th>
            <th scope="col">to buy</th>
          </tr>
        </thead>
        <tbody>
          {needed.map((line) => (
            <tr key={line.name}>
              <th scope="row">{line.name}</th>
              <td>{line.needed}</td>
              <td>{line.has}</td>
              <td>
                {line.buy ? <strong>{line.buy}</strong> : "–"}
                {line.costs && <span className="quiet"> {line.costs}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
