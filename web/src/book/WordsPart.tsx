import { useQuery } from "@tanstack/react-query";
import { Input, Skeleton } from "antd";
import { useState } from "react";
import { problemOf } from "../api/client";
import * as queries from "../api/queries";
import { Trouble } from "../shell/Trouble";
import styles from "./book.module.css";

/** The words of the trade, what was learnt, and what keeps hands safe. */
export function WordsPart() {
  const read = useQuery(queries.terms);
  const room = useQuery({ ...queries.workroom, retry: false });
  const [word, setWord] = useState("");
  if (read.isError) return <Trouble problem={problemOf(read.error)} retry={() => void read.refetch()} />;
  if (!read.data) return <Skeleton active />;
  const sought = word.trim().toLowerCase();
  const shown = read.data.terms.filter(({ word: term, means }) => `${term} ${means}`.includes(sought));
  const lessons = room.data?.workroom.lessons ?? [];
  return (
    <div className={styles["words-part"]}>
      <section className="sheet">
        <Input.Search
          aria-label="Look for a word of the trade"
          placeholder="ease, notch, toile …"
          allowClear
          value={word}
          onChange={(event) => {
            setWord(event.target.value);
          }}
        />
        {shown.length === 0 && (
          <p className="quiet" role="status">
            “{word}” is not among them. Try a shorter word.
          </p>
        )}
        <dl className={styles["terms"]}>
          {shown.map((term) => (
            <div key={term.word}>
              <dt>{term.word}</dt>
              <dd>{term.means}</dd>
            </div>
          ))}
        </dl>
      </section>
      <div className={styles["aside"]}>
        <section className="sheet">
          <h2>What was learnt</h2>
          {lessons.length === 0 && (
            <p className="quiet">Nothing yet: Record keeps a note for next time with every garment.</p>
          )}
          <ul>
            {lessons.map((lesson) => (
              <li key={lesson.id}>{lesson.words}</li>
            ))}
          </ul>
        </section>
        <section className="sheet">
          <h2>With care</h2>
          <ul>
            {read.data.cautions.map((caution) => (
              <li key={caution}>{caution}</li>
            ))}
          </ul>
        </section>
      </div>
    </div>
  );
}
