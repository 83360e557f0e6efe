import { Collapse } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { type Ahead, type EveningLine, type GarmentAhead, type TaskLine } from "../api/client";
import styles from "./plan.module.css";

/** Tasks as a chain with gates in it, laid over the evenings there are; what is done stands above. */
export function Chain({ ahead, own, garment }: { ahead: Ahead; own: GarmentAhead; garment: string }) {
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
