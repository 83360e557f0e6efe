import { useMutation } from "@tanstack/react-query";
import { Button, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { Link } from "react-router";
import {
  answer,
  api,
  problemOf,
  type Ahead,
  type GarmentAhead,
  type GarmentState,
  type WayOutLine,
} from "../api/client";
import { Saved } from "../document/Saved";
import { UndoTools } from "../document/UndoTools";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import { useAhead } from "./useWork";
import type { KeptWishes } from "./useWishes";
import styles from "./plan.module.css";
import { DayAndWorth, WaysOut } from "./DayAndWorth";
import { Chain } from "./Chain";
import { OwnTasks } from "./OwnTasks";

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
