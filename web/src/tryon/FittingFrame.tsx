import { CloseOutlined, RedoOutlined, UndoOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { clsx } from "clsx";
import type { ReactNode } from "react";
import type { Asking, TryOn } from "../api/client";
import type { Kept } from "../document/useKept";
import { ApartOnTwo } from "../document/ApartOnTwo";
import styles from "./fitting.module.css";

interface FrameProps {
  title: string;
  at: number;
  of: number;
  kept: Kept<TryOn>;
  steps: Asking["steps"];
  onGo: (to: number) => void;
  onClose: () => void;
  children: ReactNode;
}

/** What every step has around it: where one is, the way back, whether it is stored. */
export function Frame({ title, at, of, kept, steps, onGo, onClose, children }: FrameProps) {
  const { problem, isStored } = kept;
  const words =
    problem?.status === 0 || problem?.status === 503
      ? "kept here, sent when there is a network"
      : problem
        ? problem.title.toLowerCase()
        : isStored
          ? "stored"
          : "storing…";
  return (
    <main className={styles["fitting"]}>
      <header className={styles["head"]}>
        <Button type="text" aria-label="Close the fitting mode" icon={<CloseOutlined />} onClick={onClose} />
        <h1>{title}</h1>
        <Button
          type="text"
          aria-label="Undo"
          icon={<UndoOutlined />}
          disabled={!kept.canUndo}
          onClick={kept.undo}
        />
        <Button
          type="text"
          aria-label="Redo"
          icon={<RedoOutlined />}
          disabled={!kept.canRedo}
          onClick={kept.redo}
        />
      </header>
      <nav className={styles["way"]} aria-label="Places">
        {["Before the first pin", ...steps.map((s) => s.title), "What was seen"].map((name, index) => {
          const asked = steps[index - 1];
          return (
            <button
              key={`${name} ${index}`}
              type="button"
              className={clsx(
                index === at && styles["here"],
                asked?.settled && styles["settled"],
                asked?.suggested && styles["suggested"],
              )}
              aria-label={`${name}${asked?.settled ? ", entered" : ""}${asked?.suggested ? ", worth a look" : ""}`}
              aria-current={index === at ? "step" : undefined}
              onClick={() => {
                onGo(index);
              }}
            />
          );
        })}
      </nav>
      <p className={clsx(styles["kept"], problem && "trouble-words")} role="status" data-stored={isStored}>
        {at} of {of} · {words}
      </p>
      <ApartOnTwo kept={kept} />
      {problem?.errors?.map((e) => (
        <p key={e.path} className="field-trouble" role="alert">
          {e.found}. Expected {e.expected}.
        </p>
      ))}
      {children}
    </main>
  );
}

interface FootProps {
  onBack?: () => void;
  onNext: () => void;
  next?: string;
  children?: ReactNode;
}

/** The way on, where the thumb is. */
export function Foot({ onBack, onNext, next = "Next", children }: FootProps) {
  return (
    <footer className={styles["foot"]}>
      {onBack && (
        <button type="button" className={styles["foot-key"]} onClick={onBack}>
          Back
        </button>
      )}
      {children}
      <button type="button" className={clsx(styles["foot-key"], styles["next"])} onClick={onNext}>
        {next}
      </button>
    </footer>
  );
}
