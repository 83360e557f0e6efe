import { Alert, Button, Input, InputNumber, Skeleton } from "antd";
import { clsx } from "clsx";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import {
  answer,
  api,
  problemOf,
  type Correction,
  type GarmentState,
  type TaskLine,
  type TryOn,
} from "../api/client";
import type { Kept } from "../document/useKept";
import { LengthField } from "../document/LengthField";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import { TaskFacts } from "./Chain";
import { useAhead, useLog, type Entered } from "./useWork";
import styles from "./plan.module.css";

/** A timer that ran longer than this is asked about before it is believed, in minutes. */
const ASK_AFTER = 60;

/** The task at hand, large, and the next two small. Space says that it is done. */
export function SewStage({ state, working }: { state: GarmentState; working: Kept<TryOn> }) {
  const ahead = useAhead(state.id);
  const newest = state.document.states.at(-1)?.id ?? "";
  const log = useLog(state.id, newest);
  const [picked, setPicked] = useState<string | null>(null);
  const { own } = ahead;
  const open = (own?.tasks ?? []).filter((task) => task.stands === "open" || task.stands === "begun");
  const planned = [...open].sort((a, b) => (a.when[0]?.evening ?? 999) - (b.when[0]?.evening ?? 999));
  const current =
    open.find((task) => task.key === picked) ?? planned.find((t) => t.stands === "begun") ?? planned[0];
  const enter = async (task: TaskLine, entered: Entered) => {
    await log.enter(task, entered);
    setPicked(null);
  };
  useAwake(Boolean(current));
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target instanceof HTMLElement ? event.target : null;
      const isBusy = target?.closest("input, textarea, select, button, a, [role=combobox]");
      if (event.key !== " " || isBusy || !current || current.gate || current.shut_by) return;
      event.preventDefault();
      void enter(current, { did: "done" });
    };
    addEventListener("keydown", onKey);
    return () => {
      removeEventListener("keydown", onKey);
    };
  });
  if (ahead.isError) return <Trouble problem={problemOf(ahead.error)} retry={() => void ahead.refetch()} />;
  if (!own) return <Skeleton active paragraph={{ rows: 12 }} />;
  if (own.tasks.length === 0)
    return (
      <section className={clsx("sheet", styles["empty"])}>
        <p>{own.says}</p>
      </section>
    );
  const done = own.tasks.filter((task) => task.stands === "done" || task.stands === "skipped");
  return (
    <div className={styles["sew"]}>
      {log.problem && (
        <Alert
          type="warning"
          showIcon
          title={log.problem.title}
          description={
            log.problem.errors?.map((e) => `${e.found}. Expected ${e.expected}.`).join(" ") ??
            log.problem.detail
          }
        />
      )}
      {own.outlook === "settle" && <p className={clsx("sheet", styles["know"])}>⚠ {own.says}</p>}
      {current ? (
        <Current
          key={current.key}
          task={current}
          garment={state.id}
          working={working}
          enter={enter}
          isBusy={log.isBusy}
        />
      ) : (
        <section className={clsx("sheet", styles["current"])}>
          <h2>Everything is done</h2>
          <p>
            <Link to={`/garments/${state.id}/record`}>Write down what was done</Link>, and it hangs there
            finished.
          </p>
        </section>
      )}
      <div className={styles["next"]} aria-label="Next">
        {planned
          .filter((task) => task !== current)
          .slice(0, 2)
          .map((task) => (
            <button
              key={task.key}
              type="button"
              className={clsx("sheet", styles["small"])}
              onClick={() => {
                setPicked(task.key);
              }}
            >
              <span className="quiet">next</span> <strong>{task.title}</strong>{" "}
              <span className="quiet">{task.minutes_words}</span>
            </button>
          ))}
      </div>
      <details className={clsx("sheet", styles["all"])}>
        <summary>
          {done.length} of {own.tasks.length} done
        </summary>
        <ul className={styles["plain"]}>
          {own.tasks.map((task) => (
            <li key={task.key} className={styles["row"]}>
              <span aria-hidden>{task.stands === "done" ? "✓" : task.stands === "skipped" ? "–" : "○"}</span>{" "}
              <span className={clsx(task.stands !== "open" && "quiet")}>{task.title}</span>
              {task.took && <span className="quiet"> {task.took} min</span>}
              {task.is_doubtful && <Forgotten task={task} enter={enter} />}
              {(task.stands === "done" || task.stands === "skipped") && (
                <Button size="small" type="text" onClick={() => void enter(task, { did: "reopen" })}>
                  do it again
                </Button>
              )}
              {task.stands === "open" && (
                <Button
                  size="small"
                  type="text"
                  onClick={() => {
                    setPicked(task.key);
                  }}
                >
                  do it now
                </Button>
              )}
            </li>
          ))}
        </ul>
      </details>
    </div>
  );
}

interface OfTask {
  task: TaskLine;
  enter: (task: TaskLine, entered: Entered) => Promise<void>;
}

/** A timer that was forgotten asks afterwards. */
function Forgotten({ task, enter }: OfTask) {
  const [minutes, setMinutes] = useState<number | null>(null);
  return (
    <span className={styles["forgotten"]}>
      The timer ran on. How long did it take?{" "}
      <InputNumber
        aria-label="How many minutes it took"
        min={1}
        max={600}
        value={minutes}
        suffix="min"
        onChange={setMinutes}
      />{" "}
      <Button
        size="small"
        disabled={!minutes}
        onClick={() => {
          if (minutes) void enter(task, { did: "done", minutes });
        }}
      >
        That long
      </Button>
    </span>
  );
}

interface CurrentProps extends OfTask {
  garment: string;
  working: Kept<TryOn>;
  isBusy: boolean;
}

/** The task at hand. */
function Current({ task, garment, working, enter, isBusy }: CurrentProps) {
  const [note, setNote] = useState("");
  const [minutes, setMinutes] = useState<number | null>(null);
  const begun = task.begun ? new Date(task.begun).getTime() : null;
  const ran = useRunning(begun);
  const asks = ran !== null && ran > ASK_AFTER;
  const noted = note.trim() ? { note: note.trim() } : {};
  const done = () => enter(task, { did: "done", ...noted, ...(minutes && { minutes }) });
  return (
    <section className={clsx("sheet", styles["current"])} aria-label="The task at hand">
      <p className="quiet">
        {task.place} · {task.minutes_words}
        {task.when[0] && ` · ${task.when[0].words}`}
      </p>
      <h2>{task.title}</h2>
      {task.caution && <p className={styles["caution"]}>⚠ {task.caution}</p>}
      {task.shut_by && (
        <p className={styles["shut"]}>
          Shut: {task.shut_by.why}. First: <strong>{task.shut_by.title}</strong>.
        </p>
      )}
      {task.undone === "never" && !task.shut_by && (
        <p className={styles["caution"]}>⚠ This cannot be undone.</p>
      )}
      {task.trouble && <p className={styles["caution"]}>It could not be done: {task.trouble}</p>}
      {task.hand.length > 0 && (
        <ol className={styles["hand"]}>
          {task.hand.map((said) => (
            <li key={said}>{said}</li>
          ))}
        </ol>
      )}
      {task.change && task.step === "chalk" && (
        <p>
          <Link to={`/garments/${garment}/cards/${task.change}`}>Its card, with every figure to tick</Link>:
          ticked all through, this is done.
        </p>
      )}
      <TaskFacts task={task} />
      {task.gate ? (
        <Gate task={task} garment={garment} working={working} enter={enter} />
      ) : (
        <>
          {asks && (
            <p className={styles["caution"]}>
              The timer has run for {ran} min. How long did it take?{" "}
              <InputNumber
                aria-label="How many minutes it took"
                min={1}
                max={600}
                value={minutes}
                suffix="min"
                onChange={setMinutes}
              />
            </p>
          )}
          <div className={styles["buttons"]}>
            <Button
              type="primary"
              size="large"
              loading={isBusy}
              disabled={Boolean(task.shut_by) || (asks && !minutes)}
              onClick={() => void done()}
            >
              Done
            </Button>
            {begun === null ? (
              <Button
                size="large"
                disabled={Boolean(task.shut_by)}
                onClick={() => void enter(task, { did: "begin" })}
              >
                Begin, with the timer
              </Button>
            ) : (
              <span className={styles["timer"]} role="timer">
                {ran} min
              </span>
            )}
            <Button size="large" onClick={() => void enter(task, { did: "skip", ...noted })}>
              Skip
            </Button>
            <Button
              size="large"
              disabled={!note.trim()}
              onClick={() => void enter(task, { did: "could_not", ...noted })}
            >
              Could not
            </Button>
          </div>
        </>
      )}
      <div className={styles["fields"]}>
        <Input
          aria-label="A note"
          placeholder="a note, or why it could not be done"
          maxLength={400}
          value={note}
          onChange={(event) => {
            setNote(event.target.value);
          }}
        />
        <Button disabled={!note.trim()} onClick={() => void enter(task, { did: "note", ...noted })}>
          Note it
        </Button>
        <Link to={`/garments/${garment}/look-over`}>Photos are in the look-over</Link>
      </div>
    </section>
  );
}

/** A gate: verdicts, on both sides where there are two; what does not fit is corrected from the basted line. */
function Gate({ task, garment, working, enter }: OfTask & { garment: string; working: Kept<TryOn> }) {
  const { tape } = useSettings();
  const gate = task.gate;
  const [why, setWhy] = useState("");
  const [corrections, setCorrections] = useState<Partial<Correction>[]>([]);
  const [wrong, setWrong] = useState<string | null>(null);
  if (!gate) return null;
  const [fitsLeft = false, fitsRight = false] = gate.fits;
  const complete = corrections.filter((c): c is Correction => Boolean(c.change && c.station && c.per_edge));
  const fitsNot = async () => {
    setWrong(null);
    try {
      if (complete.length > 0) {
        const params = { path: { garment }, query: { tape } };
        const corrected = await answer(
          api.POST("/api/v1/garments/{garment}/corrected", { params, body: { corrections: complete } }),
        );
        working.change({
          ...working.value,
          changes: corrected.changes ?? [],
          hem_marks: corrected.hem_marks ?? [],
          chalked: corrected.chalked ?? [],
        });
      }
      await enter(task, { did: { fits_not: { corrections: complete } } });
    } catch (error) {
      const problem = problemOf(error);
      setWrong(problem.errors?.map((e) => `${e.found}. Expected ${e.expected}.`).join(" ") ?? problem.detail);
    }
  };
  const set = (at: number, part: Partial<Correction>) => {
    setCorrections(corrections.map((c, n) => (n === at ? { ...c, ...part } : c)));
  };
  return (
    <div className={styles["verdict"]}>
      {gate.failed && (
        <p className={styles["caution"]}>
          It did not fit yet: chalk and baste what was corrected, then try it on again.
        </p>
      )}
      <div className={styles["buttons"]}>
        {gate.by_side ? (
          <>
            <Button
              type={fitsLeft ? "default" : "primary"}
              size="large"
              disabled={fitsLeft}
              onClick={() => void enter(task, { did: { fits: { side: "left" } } })}
            >
              {fitsLeft ? "✓ left fits" : "Garment’s left fits"}
            </Button>
            <Button
              type={fitsRight ? "default" : "primary"}
              size="large"
              disabled={fitsRight}
              onClick={() => void enter(task, { did: { fits: { side: "right" } } })}
            >
              {fitsRight ? "✓ right fits" : "Garment’s right fits"}
            </Button>
          </>
        ) : (
          <Button type="primary" size="large" onClick={() => void enter(task, { did: { fits: {} } })}>
            It fits
          </Button>
        )}
      </div>
      <h3>It does not fit yet</h3>
      <p className="quiet">
        Read from the line that was basted: how much more comes off each edge, or less with a −.
      </p>
      {corrections.map((correction, at) => (
        <div key={at} className={styles["fields"]}>
          <select
            aria-label="Of which change"
            className={styles["date"]}
            value={correction.change ?? ""}
            onChange={(event) => {
              set(at, { change: event.target.value });
            }}
          >
            {gate.changes.map((change) => (
              <option key={change} value={change}>
                {change.split(".").slice(1).join(" ").replaceAll("_", " ")}
              </option>
            ))}
          </select>
          <LengthField
            label="Station"
            placeholder="station"
            shown={correction.station ?? ""}
            onRead={(station) => {
              set(at, { station });
            }}
          />
          <LengthField
            label="More off each edge"
            placeholder="more, each edge"
            shown={correction.per_edge ?? ""}
            onRead={(per_edge) => {
              set(at, { per_edge });
            }}
          />
        </div>
      ))}
      {wrong && (
        <p className="field-trouble" role="alert">
          {wrong}
        </p>
      )}
      <div className={styles["buttons"]}>
        <Button
          onClick={() => {
            setCorrections([...corrections, { change: gate.changes[0] ?? "" }]);
          }}
        >
          Add a correction
        </Button>
        <Button onClick={() => void fitsNot()}>
          Does not fit yet{complete.length > 0 && `, ${complete.length} corrected`}
        </Button>
      </div>
      <div className={styles["fields"]}>
        <Input
          aria-label="Why it is passed without a verdict"
          placeholder="pass it all the same, because …"
          maxLength={400}
          value={why}
          onChange={(event) => {
            setWhy(event.target.value);
          }}
        />
        <Button
          disabled={!why.trim()}
          onClick={() => void enter(task, { did: "pass_anyway", note: why.trim() })}
        >
          Pass it all the same
        </Button>
      </div>
    </div>
  );
}

/** Minutes since a moment, counted on; nothing where nothing runs. */
function useRunning(since: number | null): number | null {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (since === null) return;
    const timer = setInterval(() => {
      setNow(Date.now());
    }, 10_000);
    return () => {
      clearInterval(timer);
    };
  }, [since]);
  return since === null ? null : Math.max(0, Math.round((now - since) / 60_000));
}

/** Keeps the screen awake while something is sewn, where the device can. */
function useAwake(wanted: boolean) {
  useEffect(() => {
    if (!wanted || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    const ask = () => {
      if (document.visibilityState !== "visible") return;
      navigator.wakeLock
        .request("screen")
        .then((held) => {
          lock = held;
        })
        .catch(() => undefined);
    };
    ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, [wanted]);
}
