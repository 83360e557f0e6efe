import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Checkbox, Input, InputNumber, Popconfirm, Select, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { v7 as newId } from "uuid";
import {
  answer,
  api,
  problemOf,
  type AsSewn,
  type Entry,
  type GarmentState,
  type History,
  type LessonOn,
  type Proposal,
} from "../api/client";
import * as queries from "../api/queries";
import { LengthField } from "../document/LengthField";
import { today } from "../document/today";
import { Words } from "../drawing/Words";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import styles from "./plan.module.css";

/** What was done, what is left inside, and what was learnt. */
export function RecordStage({ state, onPick }: { state: GarmentState; onPick: (key: string) => void }) {
  const { tape } = useSettings();
  const client = useQueryClient();
  const [sewn, setSewn] = useState<AsSewn>({});
  const history = useQuery({
    queryKey: ["history", state.id, tape, sewn],
    queryFn: () =>
      answer(
        api.POST("/api/v1/garments/{garment}/history", {
          params: { path: { garment: state.id }, query: { tape } },
          body: sewn,
        }),
      ),
    placeholderData: (before) => before,
    staleTime: 0,
  });
  const enter = useMutation({
    mutationFn: ({
      what,
      why,
      garment,
    }: {
      what: Entry["what"];
      why?: string;
      garment?: Proposal["garment"];
    }) =>
      answer(
        api.POST("/api/v1/garments/{garment}/record", {
          params: { path: { garment: state.id }, query: { tape } },
          body: {
            entry: { id: newId(), date: today(), what, ...(why && { why }) },
            ...(garment && { garment }),
          },
        }),
      ),
    onSuccess: async () => {
      setSewn({});
      await client.invalidateQueries(queries.everythingAhead);
      await client.invalidateQueries({ queryKey: ["history", state.id] });
      await client.invalidateQueries({ queryKey: ["garment", state.id] });
    },
  });
  if (history.isError)
    return (
      <Trouble
        problem={problemOf(history.error)}
        retry={() => {
          setSewn({});
          void history.refetch();
        }}
      />
    );
  if (!history.data) return <Skeleton active paragraph={{ rows: 12 }} />;
  const told = history.data;
  return (
    <div className={styles["record"]}>
      {told.proposal && (
        <Sewn
          proposal={told.proposal}
          sewn={sewn}
          onSewn={setSewn}
          isBusy={enter.isPending}
          onEnter={(why) => {
            const proposal = told.proposal;
            if (!proposal) return;
            const entered = proposal.changes.filter((change) => change.is_entered);
            enter.mutate({
              what: {
                sewn: {
                  from: proposal.from,
                  to: newId(),
                  ...(proposal.try_on && { try_on: proposal.try_on }),
                  changes: entered.map((change) => change.key),
                  otherwise: sewn.otherwise ?? [],
                  measured: sewn.measured ?? [],
                  cut: entered.filter((change) => change.is_cut).map((change) => change.key),
                },
              },
              why,
              garment: proposal.garment,
            });
          }}
        />
      )}
      {enter.isError && (
        <p className="field-trouble" role="alert">
          {problemOf(enter.error).title}. {problemOf(enter.error).detail}
        </p>
      )}
      <Reserve told={told} onPick={onPick} />
      <section className={clsx("sheet", styles["entries"])} aria-label="What was done">
        <h2>What was done</h2>
        {told.entries.length === 0 && (
          <p className="quiet">
            Nothing yet. What is sewn is entered above; it is never changed, only added to.
          </p>
        )}
        <ul className={styles["plain"]}>
          {told.entries.map((entry) => (
            <li key={entry.id}>
              <strong>{entry.date}</strong> {entry.says} {entry.why && <em>{entry.why}</em>}
              {entry.figures.length > 0 && (
                <span className={styles["figures"]}>{entry.figures.join(" · ")}</span>
              )}
              {entry.can_be_taken_back && (
                <Popconfirm
                  title="Take it back?"
                  description="A new entry says so; nothing is lost."
                  okText="Take it back"
                  cancelText="Leave it"
                  onConfirm={() => {
                    const from = state.document.states.at(-1)?.id ?? "";
                    enter.mutate({ what: { taken_back: { entry: entry.id, from, to: newId() } } });
                  }}
                >
                  <Button size="small" type="text">
                    take it back
                  </Button>
                </Popconfirm>
              )}
              {entry.why_not && <span className="quiet"> {entry.why_not}</span>}
            </li>
          ))}
        </ul>
        <Wearing
          onWorn={() => {
            enter.mutate({ what: { worn: { times: 1 } } });
          }}
          onSpent={(on, money) => {
            enter.mutate({ what: { spent: { on, money } } });
          }}
        />
      </section>
      <States told={told} />
      <Lesson state={state} />
    </div>
  );
}

/** What could be entered as sewn, as it was sewn. */
function Sewn({
  proposal,
  sewn,
  onSewn,
  onEnter,
  isBusy,
}: {
  proposal: Proposal;
  sewn: AsSewn;
  onSewn: (sewn: AsSewn) => void;
  onEnter: (why: string) => void;
  isBusy: boolean;
}) {
  const [why, setWhy] = useState("");
  const entered = proposal.changes.filter((change) => change.is_entered).map((change) => change.key);
  return (
    <section className={clsx("sheet", styles["sewn"])} aria-label="Enter what was sewn">
      <h2>Enter what was sewn</h2>
      <p className="quiet">
        The garment’s next state follows from what was done. What you measure afterwards replaces what was
        derived.
      </p>
      <div className={styles["fields"]}>
        {proposal.changes.map((change) => (
          <Checkbox
            key={change.key}
            checked={change.is_entered}
            onChange={(event) => {
              const changes = event.target.checked
                ? [...entered, change.key]
                : entered.filter((key) => key !== change.key);
              onSewn({ ...sewn, changes });
            }}
          >
            {change.name}
            {!change.is_sewn && <span className="quiet"> (not ticked as sewn)</span>}
            {change.is_cut && <span className="quiet"> (cut)</span>}
          </Checkbox>
        ))}
      </div>
      <table>
        <thead>
          <tr>
            <th scope="col">all round</th>
            <th scope="col">before</th>
            <th scope="col">now, derived</th>
            <th scope="col">measured</th>
          </tr>
        </thead>
        <tbody>
          {proposal.levels.map((level) => (
            <tr key={level.level}>
              <th scope="row">{level.name}</th>
              <td>
                <Words>{level.before.text}</Words>
              </td>
              <td>
                <Words>{level.after.text}</Words>
                {level.is_measured && <span className="quiet"> as measured</span>}
              </td>
              <td>
                <LengthField
                  label={`Measured at the ${level.name}, all round`}
                  placeholder="all round"
                  shown=""
                  onRead={(girth) => {
                    const facts = proposal.garment.levels.find((l) => l.level === level.level);
                    if (!facts) return;
                    const others = (sewn.measured ?? []).filter((m) => m.level !== level.level);
                    onSewn({
                      ...sewn,
                      measured: [...others, { ...facts, width: { girth }, assumed: false }],
                    });
                  }}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className={styles["fields"]}>
        <Input
          aria-label="Why"
          placeholder="why, in a few words"
          maxLength={400}
          value={why}
          onChange={(event) => {
            setWhy(event.target.value);
          }}
        />
        <Button
          type="primary"
          size="large"
          loading={isBusy}
          disabled={entered.length === 0}
          onClick={() => {
            onEnter(why.trim());
          }}
        >
          Enter it as sewn
        </Button>
      </div>
    </section>
  );
}

/** What is left inside, part by part; and how far it can go. */
function Reserve({ told, onPick }: { told: History; onPick: (key: string) => void }) {
  return (
    <section className={clsx("sheet", styles["reserve"])} aria-label="What is left inside">
      <h2>What is left inside</h2>
      <ul className={styles["plain"]}>
        {told.reserve.map((line) => (
          <li key={line.part}>
            <button
              type="button"
              className={styles["part"]}
              onClick={() => {
                onPick(line.part);
              }}
            >
              <strong>{line.name}</strong>
            </button>{" "}
            <span className={clsx(!line.gives && "quiet")}>
              <Words>{line.says}</Words>
            </span>
            {line.levels.length > 1 && (
              <details className="quiet">
                <summary>level by level</summary>
                {line.levels.map((level) => (
                  <div key={level}>
                    <Words>{level}</Words>
                  </div>
                ))}
              </details>
            )}
          </li>
        ))}
      </ul>
      {told.can_go.length > 0 && (
        <>
          <h3>How far it can go, every seam together</h3>
          <ul className={styles["plain"]}>
            {told.can_go.map((line) => (
              <li key={line.level}>
                <strong>{line.name}</strong>: out to <Words>{line.to.text}</Words>{" "}
                <span className="quiet">
                  <Words>{line.sum}</Words>
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

/** Worn, and what was spent. */
function Wearing({ onWorn, onSpent }: { onWorn: () => void; onSpent: (on: string, money: number) => void }) {
  const [on, setOn] = useState("");
  const [sum, setSum] = useState<number | null>(null);
  return (
    <div className={styles["fields"]}>
      <Button onClick={onWorn}>Worn today</Button>
      <Input
        aria-label="What money was spent on"
        placeholder="spent on"
        maxLength={100}
        value={on}
        onChange={(event) => {
          setOn(event.target.value);
        }}
      />
      <InputNumber aria-label="How much" min={0} max={99_999} precision={2} value={sum} onChange={setSum} />
      <Button
        disabled={!on.trim() || sum === null}
        onClick={() => {
          onSpent(on.trim(), Math.round((sum ?? 0) * 100));
          setOn("");
          setSum(null);
        }}
      >
        Enter it
      </Button>
    </div>
  );
}

/** Every state, to be looked at again. */
function States({ told }: { told: History }) {
  if (told.states.length < 2) return null;
  return (
    <section className={clsx("sheet", styles["states"])} aria-label="How it was">
      <h2>How it was</h2>
      <div className={styles["side-by-side"]}>
        {told.states.map((state) => (
          <div key={state.id}>
            <h3>{state.name}</h3>
            <ul className={styles["plain"]}>
              {state.levels.map((level) => (
                <li key={level.level}>
                  {level.name} <Words>{level.girth.text}</Words>
                  {level.assumed && <span className="quiet"> assumed</span>}
                </li>
              ))}
            </ul>
          </div>
        ))}
      </div>
    </section>
  );
}

/** A lesson for next time. */
function Lesson({ state }: { state: GarmentState }) {
  const client = useQueryClient();
  const room = useQuery(queries.workroom);
  const [words, setWords] = useState("");
  const [about, setAbout] = useState("garment");
  const garment = state.document.states.at(-1)?.garment;
  const on: Record<string, LessonOn> = {
    garment: { garment: state.id },
    wearer: { wearer: state.wearer_id },
    cloth: { cloth: garment?.cloth.name ?? "" },
  };
  const add = useMutation({
    mutationFn: async () => {
      const { version, workroom } = await answer(api.GET("/api/v1/workroom"));
      const lesson = {
        id: newId(),
        date: today(),
        on: on[about] ?? { garment: state.id },
        words: words.trim(),
      };
      const changed = { ...workroom, lessons: [...(workroom.lessons ?? []), lesson] };
      await answer(api.PUT("/api/v1/workroom", { body: { version, workroom: changed } }));
    },
    onSuccess: async () => {
      setWords("");
      await client.invalidateQueries({ queryKey: ["workroom"] });
      await client.invalidateQueries(queries.everythingAhead);
    },
  });
  const own = (room.data?.workroom.lessons ?? []).filter((lesson) => {
    const { on: of } = lesson;
    return (
      ("garment" in of && of.garment === state.id) ||
      ("wearer" in of && of.wearer === state.wearer_id) ||
      ("cloth" in of && of.cloth === garment?.cloth.name)
    );
  });
  return (
    <section className={clsx("sheet", styles["learnt"])} aria-label="Lessons">
      <h2>For next time</h2>
      <ul className={styles["plain"]}>
        {own.map((lesson) => (
          <li key={lesson.id}>{lesson.words}</li>
        ))}
      </ul>
      <form
        className={styles["fields"]}
        onSubmit={(event) => {
          event.preventDefault();
          if (words.trim()) add.mutate();
        }}
      >
        <Select
          aria-label="What the lesson is about"
          value={about}
          popupMatchSelectWidth={false}
          options={[
            { value: "garment", label: "this garment" },
            { value: "wearer", label: state.document.wearer.name },
            { value: "cloth", label: garment?.cloth.name ?? "this cloth" },
          ]}
          onChange={setAbout}
        />
        <Input
          aria-label="What was learnt"
          placeholder="what to do differently"
          maxLength={400}
          value={words}
          onChange={(event) => {
            setWords(event.target.value);
          }}
        />
        <Button htmlType="submit" disabled={!words.trim()} loading={add.isPending}>
          Keep it
        </Button>
      </form>
      {add.isError && (
        <p className="field-trouble" role="alert">
          {problemOf(add.error).title}. {problemOf(add.error).detail}
        </p>
      )}
    </section>
  );
}
