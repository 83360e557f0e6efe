import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Input, InputNumber, Select, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { Link } from "react-router";
import { v7 as newId } from "uuid";
import { answer, api, problemOf, type Workroom, type WorkroomState } from "../api/client";
import * as queries from "../api/queries";
import { Saved } from "../document/Saved";
import { UndoTools } from "../document/UndoTools";
import { useKept, type Kept } from "../document/useKept";
import { useNews } from "../document/useNews";
import { Shelf } from "../plan/PlanStage";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import styles from "./evenings.module.css";
import { Evening, TimeNow } from "./Evening";
import { Pattern } from "./Pattern";
import { Events, CalendarOf } from "./CalendarParts";

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
