import { Button } from "antd";
import { clsx } from "clsx";
import { useState, type ReactNode } from "react";
import type { Marked } from "../api/client";
import type { KeptWishes } from "../plan/useWishes";
import styles from "./paper.module.css";
import { usePieces } from "./usePieces";

interface Props {
  id: string;
  /** A toile has them on paper. */
  isToile: boolean;
  wishes: KeptWishes;
  /** What it stands above. */
  children: ReactNode;
}

/** What was marked on a garment's toile and left for the real cloth: it waits here, where the garment is looked over. */
export function FromToile({ id, isToile, wishes, children }: Props) {
  const pattern = wishes.value.pattern ?? {};
  const marks = pattern.marks ?? [];
  const [before, setBefore] = useState<Marked[] | null>(null);
  const found = usePieces(id, pattern, null, {}, !isToile && marks.length > 0);
  const put = (next: Marked[]) => {
    wishes.set({ pattern: { ...pattern, marks: next } });
  };
  const waiting = isToile || marks.length === 0 ? [] : (found.data?.toile.marks ?? []);
  if (waiting.length === 0 && !before) return children;
  return (
    <div className={styles["paper"]}>
      <section className={clsx("sheet", styles["size"])} aria-label="Left by its toile">
        <h2>Left by its toile for this cloth</h2>
        {waiting.length === 0 && <p className="quiet">All of it is done.</p>}
        <ul className={styles["chips"]}>
          {waiting.map((mark, n) => (
            <li key={mark.mark + mark.stage}>
              <span>{mark.says}</span>
              <Button
                size="small"
                onClick={() => {
                  setBefore(marks);
                  put(marks.filter((_, k) => k !== n));
                }}
              >
                It is done
              </Button>
            </li>
          ))}
        </ul>
        {before && (
          <Button
            type="link"
            onClick={() => {
              put(before);
              setBefore(null);
            }}
          >
            Put it back
          </Button>
        )}
      </section>
      {children}
    </div>
  );
}
