import { App, Button, Segmented, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { useNavigate } from "react-router";
import { v7 as newId } from "uuid";
import {
  answer,
  api,
  problemOf,
  type CutFromToile,
  type GarmentState,
  type Marked,
  type MarkOffered,
  type MarkShown,
  type Pattern,
  type ToileShown,
} from "../api/client";
import { LengthField } from "../document/LengthField";
import { useWords } from "../document/useWords";
import { Trouble } from "../shell/Trouble";
import sheet from "../shell/sheet.module.css";
import styles from "./paper.module.css";
import { usePieces } from "./usePieces";

interface Props {
  state: GarmentState;
  pattern: Pattern;
  /** What the try-on says now: marks come on top of it. */
  follows: unknown;
  onSet: (part: Partial<Pattern>) => void;
}

/** The toile: how it is made, what is marked on it stage by stage, and what becomes of each mark. */
export function ToilePart({ state, pattern, follows, onSet }: Props) {
  const { id } = state;
  const marks = pattern.marks ?? [];
  const [chosen, setToile] = useState<number>();
  const found = usePieces(id, pattern, follows);
  if (found.isError && !found.data)
    return <Trouble problem={problemOf(found.error)} retry={() => void found.refetch()} />;
  if (!found.data) return <Skeleton active paragraph={{ rows: 8 }} />;
  const shown = found.data.toile;
  const toile = chosen ?? shown.newest;
  const isPast = toile <= shown.before_it;
  const put = (key: Pick<Marked, "mark" | "stage">, changed: Partial<Marked> | null) => {
    const is = (m: Marked) => m.mark === key.mark && m.stage === key.stage && m.toile === toile;
    if (changed === null) {
      onSet({ marks: marks.filter((m) => !is(m)) });
    } else if (marks.some(is)) {
      onSet({ marks: marks.map((m) => (is(m) ? { ...m, ...changed } : m)) });
    } else if (changed.by) {
      onSet({ marks: [...marks, { ...key, toile, by: changed.by }] });
    }
  };
  return (
    <section className={clsx("sheet", styles["size"])} aria-label="The toile">
      <div className={sheet["section-head"]}>
        <h2>{shown.stands}</h2>
        <Segmented<number>
          aria-label="Which toile"
          options={shown.toiles.map((n) => ({ value: n, label: `toile ${n}` }))}
          value={toile}
          onChange={setToile}
        />
      </div>
      <Waiting shown={shown} state={state} />
      <details className={styles["before"]} open={marks.length === 0}>
        <summary>Before it is worn</summary>
        <ul>
          {shown.before.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      </details>
      {shown.stages.map((stage) => (
        <Stage
          key={stage.stage}
          stage={stage}
          made={shown.marks.filter((m) => m.stage === stage.stage && m.toile === toile)}
          toile={toile}
          isPast={isPast}
          onPut={put}
        />
      ))}
      <details className={styles["before"]}>
        <summary>Then, in its real cloth</summary>
        <ul>
          {shown.basted.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      </details>
    </section>
  );
}

/** What is left for the real cloth: it is not forgotten. */
function Waiting({ shown, state }: { shown: ToileShown; state: GarmentState }) {
  const navigate = useNavigate();
  const { message } = App.useApp();
  const begin = async ({ garment, pattern }: CutFromToile) => {
    const id = newId();
    const params = { path: { garment: id } };
    const { wearer_id } = state;
    const body = { version: 0, wearer_id, archived: false, state: newId(), garment };
    await answer(api.PUT("/api/v1/garments/{garment}", { params, body }));
    const wishes = { version: 0, wishes: { pattern } };
    await answer(api.PUT("/api/v1/garments/{garment}/wishes", { params, body: wishes }));
    await navigate(`/garments/${id}/look-over`);
  };
  const { begins, waiting } = shown;
  if (waiting.length === 0 && begins.length === 0) return null;
  return (
    <div className={styles["as-cut"]} role="status">
      <p>
        {waiting.length > 0 && (
          <>
            Wait for the real cloth: <strong>{waiting.join("; ")}</strong>.{" "}
          </>
        )}
        {begins[0]?.says}
      </p>
      {begins.map((begun) => (
        <Button
          key={begun.words}
          onClick={() => {
            void begin(begun).catch((error: unknown) => message.error(problemOf(error).detail));
          }}
        >
          {begun.words}
        </Button>
      ))}
    </div>
  );
}

interface StageProps {
  stage: ToileShown["stages"][number];
  toile: number;
  made: MarkShown[];
  /** It was sewn and changed: what was marked on it stays. */
  isPast: boolean;
  onPut: (key: Pick<Marked, "mark" | "stage">, changed: Partial<Marked> | null) => void;
}

function Stage({ stage, toile, made, isPast, onPut }: StageProps) {
  if (stage.marks.length === 0 || (isPast && made.length === 0)) return null;
  const name = stage.words;
  return (
    <section className={styles["toile-stage"]} aria-label={name}>
      <h3>{name}</h3>
      <p className="quiet">{isPast ? "Sewn and changed since: this stays as it was marked." : stage.first}</p>
      <ul>
        {isPast && made.map((mark) => <PastLine key={mark.mark} made={mark} />)}
        {(isPast ? [] : stage.marks).map((offered) => (
          <MarkLine
            key={offered.mark}
            offered={offered}
            stage={name}
            made={made.find((m) => m.mark === offered.mark)}
            earlier={offered.earlier[toile - 1]}
            onPut={(changed) => {
              onPut({ mark: offered.mark, stage: stage.stage }, changed);
            }}
          />
        ))}
      </ul>
    </section>
  );
}

/** What was marked on a toile before. */
function PastLine({ made }: { made: MarkShown }) {
  return (
    <li>
      <span>
        <b>{made.says}</b> <small className="quiet">· {made.past}</small>
      </span>
    </li>
  );
}

interface LineProps {
  offered: MarkOffered;
  stage: string;
  made: MarkShown | undefined;
  /** What the toile before said there. */
  earlier: string | null | undefined;
  onPut: (changed: Partial<Marked> | null) => void;
}

/** One mark: by how much, when it is settled, and what becomes of it. */
function MarkLine({ offered, stage, made, earlier, onPut }: LineProps) {
  const words = useWords();
  return (
    <li>
      <span>
        <b>{offered.words}</b> <small className="quiet">{offered.how}</small>
        {earlier && <small className="quiet"> · {earlier}</small>}
      </span>
      <LengthField
        label={`${offered.words}, ${stage}`}
        shown={made?.by ?? ""}
        onRead={(by) => {
          onPut({ by });
        }}
        onEmpty={() => {
          onPut(null);
        }}
      />
      {made && (
        <>
          <Segmented<string>
            aria-label={`When ${offered.words} is settled`}
            options={words.options<string>("mark_settled")}
            value={made.settled ?? ""}
            onChange={(settled) => {
              onPut({ settled: settled as NonNullable<Marked["settled"]> });
            }}
          />
          {made.settled === "now" && <Becomes made={made} />}
          {!made.settled && (
            <Button
              type="link"
              size="small"
              onClick={() => {
                onPut(null);
              }}
            >
              take it away
            </Button>
          )}
        </>
      )}
    </li>
  );
}

function Becomes({ made }: { made: MarkShown }) {
  return (
    <span className={clsx(styles["becomes"], made.cannot && styles["cannot"])}>
      {made.cannot ? `Not done: ${made.cannot}.` : `${made.becomes.join(". ")}.`}
    </span>
  );
}
