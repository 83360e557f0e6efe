import { DeleteOutlined, EditOutlined } from "@ant-design/icons";
import { Alert, Button, Input, Modal, Select, Tooltip } from "antd";
import { clsx } from "clsx";
import { useEffect, useRef, useState } from "react";
import type { Addition, Complaint, Doubt, Garment, LookOver, Problem, Question } from "../api/client";
import { ClothForm } from "./ClothForm";
import { FieldInput } from "./FieldInput";
import { Photos } from "../photos/Photos";
import { pointerOf, valueAt, withValueAt } from "./pointer";
import styles from "./lookover.module.css";

interface Props {
  id: string;
  garment: Garment;
  lookOver: LookOver | null;
  problem: Problem | null;
  /** The question that was picked on the stand. */
  picked: string | null;
  onPick: (key: string) => void;
  onChange: (garment: Garment) => void;
}

/** What to find out before anything is pinned: one question at a time, and why it is asked. All of it may be skipped. */
export function LookOverStage({ id, garment, lookOver, problem, picked, onPick, onChange }: Props) {
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!picked) return;
    const element = list.current?.querySelector(`[data-question="${picked}"]`);
    element?.scrollIntoView({ block: "center" });
    element?.querySelector<HTMLElement>("input, button, select")?.focus({ preventScroll: true });
  }, [picked]);
  if (!lookOver)
    return <p className="quiet">{problem ? `${problem.title}. ${problem.detail}` : "Looking…"}</p>;
  const questions = lookOver.places.flatMap((place) => place.questions);
  const at = questions.findIndex((q) => q.key === picked);
  const next =
    questions.slice(at + 1).find((q) => !q.settled) ?? questions.find((q) => !q.settled && q.key !== picked);
  const complaint = (path: string): Complaint | undefined =>
    problem?.errors?.find((e) => `${pointerOf(e.path)}/`.startsWith(`/garment${path}/`));
  const isAsked = (doubt: Doubt) => questions.some((question) => concerns(doubt, question));
  const others = (problem?.errors ?? []).filter((e) => !/^garment\.(levels|seams|darts|hems)/.test(e.path));
  return (
    <div className={styles["lookover"]} ref={list}>
      <div className={clsx(styles["head"], "sheet")}>
        <div>
          <strong>
            {lookOver.settled} of {lookOver.of} settled
          </strong>{" "}
          <span className="quiet">What nobody measured is assumed, and drawn so. Skip what you like.</span>
        </div>
        {next ? (
          <Button
            type="primary"
            onClick={() => {
              onPick(next.key);
            }}
          >
            Next: {next.title}
          </Button>
        ) : (
          <span className={styles["done"]}>✓ looked over</span>
        )}
      </div>
      {lookOver.cautions.map((caution) => (
        <Alert
          key={caution.title}
          type={caution.grave ? "error" : "warning"}
          showIcon
          title={caution.title}
          description={caution.says}
        />
      ))}
      {lookOver.doubts
        .filter((doubt) => !isAsked(doubt))
        .map((doubt) => (
          <DoubtAlert key={doubt.path} doubt={doubt} garment={garment} onChange={onChange} />
        ))}
      {others.length > 0 && (
        <p className="field-trouble" role="alert">
          {others.map((e) => `${e.found}. Expected ${e.expected}.`).join(" ")}
        </p>
      )}
      <section className={clsx("sheet", styles["place"])}>
        <h2>Name and cloth</h2>
        <ClothForm garment={garment} onChange={onChange} />
      </section>
      {lookOver.places.map((place) => (
        <section key={place.name} className={clsx("sheet", styles["place"])}>
          <h2>
            {place.name}{" "}
            <small className="quiet">
              {place.questions.filter((q) => q.settled).length} of {place.questions.length}
            </small>
          </h2>
          <p className="quiet">{place.why}</p>
          {place.questions.map((question) => (
            <QuestionRow
              key={question.key}
              question={question}
              garment={garment}
              doubts={lookOver.doubts}
              complaint={complaint}
              isPicked={question.key === picked}
              onChange={onChange}
            />
          ))}
        </section>
      ))}
      <section className={clsx("sheet", styles["place"])}>
        <h2>Other parts</h2>
        <p className="quiet">An extra panel seam, a pair of darts, one more level to measure at.</p>
        <Add additions={lookOver.additions} garment={garment} onChange={onChange} />
      </section>
      <Photos garment={id} />
    </div>
  );
}

const concerns = (doubt: Doubt, question: Question) =>
  question.fields.some((field) => field.path === pointerOf(doubt.path));

interface RowProps {
  question: Question;
  garment: Garment;
  doubts: Doubt[];
  complaint: (path: string) => Complaint | undefined;
  isPicked: boolean;
  onChange: (garment: Garment) => void;
}

function QuestionRow({ question, garment, doubts, complaint, isPicked, onChange }: RowProps) {
  const set = (path: string, value: unknown) => {
    let next = withValueAt(garment, path, value);
    if (question.settles) next = withValueAt(next, question.settles, undefined);
    onChange(next);
  };
  const { removes, renames } = question;
  return (
    <div
      className={clsx(styles["question"], isPicked && styles["picked-question"])}
      data-question={question.key}
      data-settled={question.settled}
    >
      <div className={styles["question-words"]}>
        <h3>
          <span className={clsx(styles["question-mark"], question.settled && styles["settled"])} aria-hidden>
            {question.settled ? "✓" : "·"}
          </span>
          <span>
            {question.title}
            {!question.settled && <small className="quiet"> assumed</small>}
          </span>
        </h3>
        <p className="quiet">{question.why}</p>
      </div>
      <div className={styles["question-fields"]}>
        {question.fields.map((field) => (
          <FieldInput
            key={field.path}
            field={field}
            title={question.title}
            raw={valueAt(garment, field.path)}
            complaint={complaint(field.path)}
            onSet={set}
          />
        ))}
      </div>
      {doubts
        .filter((doubt) => concerns(doubt, question))
        .map((doubt) => (
          <DoubtAlert key={doubt.path} doubt={doubt} garment={garment} onChange={onChange} />
        ))}
      <div className={styles["question-tools"]}>
        {!question.settled && question.settles && (
          <Button
            size="small"
            onClick={() => {
              onChange(withValueAt(garment, question.settles ?? "", undefined));
            }}
          >
            as shown
          </Button>
        )}
        {renames && <Rename title={question.title} path={renames} garment={garment} onChange={onChange} />}
        {removes && (
          // Nothing is asked: undo brings it back.
          <Button
            type="text"
            size="small"
            icon={<DeleteOutlined />}
            title="It has none"
            aria-label={`Take the ${question.title} off this garment`}
            onClick={() => {
              onChange(withValueAt(garment, removes, undefined));
            }}
          />
        )}
      </div>
    </div>
  );
}

function Rename({
  title,
  path,
  garment,
  onChange,
}: {
  title: string;
  path: string;
  garment: Garment;
  onChange: (garment: Garment) => void;
}) {
  const [name, setName] = useState<string | null>(null);
  return (
    <>
      <Tooltip title="Call it something else">
        <Button
          type="text"
          size="small"
          icon={<EditOutlined />}
          aria-label={`Rename the ${title}`}
          onClick={() => {
            setName(title);
          }}
        />
      </Tooltip>
      <Modal
        title={`What do you call the ${title}?`}
        open={name !== null}
        okText="Call it that"
        cancelText="Leave it"
        onCancel={() => {
          setName(null);
        }}
        onOk={() => {
          onChange(withValueAt(garment, path, name?.trim() === "" ? undefined : name?.trim()));
          setName(null);
        }}
      >
        <Input
          aria-label="Name"
          maxLength={60}
          value={name ?? ""}
          onChange={(event) => {
            setName(event.target.value);
          }}
        />
      </Modal>
    </>
  );
}

function DoubtAlert({
  doubt,
  garment,
  onChange,
}: {
  doubt: Doubt;
  garment: Garment;
  onChange: (garment: Garment) => void;
}) {
  const { instead } = doubt;
  return (
    <Alert
      type="info"
      showIcon
      className={clsx(styles["doubt"])}
      title={doubt.question}
      action={
        instead && (
          <Button
            size="small"
            onClick={() => {
              onChange(withValueAt(garment, pointerOf(doubt.path), instead.width));
            }}
          >
            {instead.words}
          </Button>
        )
      }
    />
  );
}

function Add({
  additions,
  garment,
  onChange,
}: {
  additions: Addition[];
  garment: Garment;
  onChange: (garment: Garment) => void;
}) {
  return (
    <Select<string>
      aria-label="Add a part"
      placeholder="Add a part"
      value={null}
      showSearch={{ optionFilterProp: "label" }}
      popupMatchSelectWidth={false}
      className={clsx(styles["add-part"])}
      options={additions.map((a) => ({ value: a.words, label: a.words }))}
      onChange={(words) => {
        const addition = additions.find((a) => a.words === words);
        if (!addition) return;
        const parts = (valueAt(garment, `/${addition.list}`) ?? []) as unknown[];
        onChange(withValueAt(garment, `/${addition.list}`, [...parts, addition.part]));
      }}
    />
  );
}
