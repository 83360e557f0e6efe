import { useMutation, useQuery } from "@tanstack/react-query";
import { Button, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { answer, api, problemOf } from "../api/client";
import { Words } from "../drawing/Words";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import styles from "./book.module.css";

const anyNumber = () => Math.floor(Math.random() * 0xffffffff);

/** Short exercises: one question, what was right, and why. */
export function PracticePart() {
  const { tape } = useSettings();
  const [number, setNumber] = useState(anyNumber);
  const [score, setScore] = useState({ right: 0, of: 0 });
  const round = useQuery({
    queryKey: ["practice", number, tape],
    queryFn: () => answer(api.GET("/api/v1/practice", { params: { query: { tape, number } } })),
    staleTime: Infinity,
  });
  const given = useMutation({
    mutationFn: async (chosen: number) => {
      if (!round.data) throw new Error("nothing was asked");
      const body = { slip: round.data.slip, number: round.data.number, tape, chosen };
      const answered = await answer(api.POST("/api/v1/practice", { body }));
      return { ...answered, chosen };
    },
    onSuccess: ({ is_right }) => {
      setScore({ right: score.right + (is_right ? 1 : 0), of: score.of + 1 });
    },
  });
  if (round.isError) return <Trouble problem={problemOf(round.error)} retry={() => void round.refetch()} />;
  if (!round.data) return <Skeleton active />;
  const { about, question, options } = round.data;
  const done = given.data;
  return (
    <section className={clsx("sheet", styles["practice"])} aria-label="Practice">
      <p className="quiet">
        {about}
        {score.of > 0 && ` · ${score.right} of ${score.of} right`}
      </p>
      <p className={styles["question"]}>
        <Words>{question}</Words>
      </p>
      <ul className={styles["options"]}>
        {options.map((option, index) => (
          <li key={option}>
            <button
              type="button"
              className={clsx(
                styles["option"],
                done?.right === index && styles["option-right"],
                done && done.chosen === index && index !== done.right && styles["option-wrong"],
              )}
              disabled={done !== undefined || given.isPending}
              onClick={() => {
                given.mutate(index);
              }}
            >
              <Words>{option}</Words>
              {done?.right === index && <em>right</em>}
              {done && done.chosen === index && index !== done.right && <em>yours</em>}
            </button>
          </li>
        ))}
      </ul>
      {given.isError && (
        <p className="field-trouble" role="alert">
          {problemOf(given.error).title}. {problemOf(given.error).detail}
        </p>
      )}
      {done && (
        <div className={styles["explained"]} role="status">
          <p>
            <strong>{done.is_right ? "Right." : "Not so."}</strong> <Words>{done.explains}</Words>
          </p>
          <Button
            type="primary"
            size="large"
            onClick={() => {
              given.reset();
              setNumber(anyNumber());
            }}
          >
            Next
          </Button>
        </div>
      )}
    </section>
  );
}
