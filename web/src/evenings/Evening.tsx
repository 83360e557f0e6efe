import { useMutation } from "@tanstack/react-query";
import { Button, Checkbox, InputNumber } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api, problemOf, type EveningLine, type PieceLine } from "../api/client";
import { EveningHead } from "../plan/Chain";
import { useSettings } from "../settings";
import styles from "./evenings.module.css";

/** One evening, with what is done in it. */
export function Evening({ evening, onLeaveOut }: { evening: EveningLine; onLeaveOut?: () => void }) {
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
export function TimeNow() {
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
