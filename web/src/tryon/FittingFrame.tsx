import { CloseOutlined, RedoOutlined, UndoOutlined } from "@ant-design/icons";
import { Button } from "antd";
import type { ReactNode } from "react";
import type { Asking, TryOn } from "../api/client";
import type { Kept } from "../document/useKept";
import { ApartOnTwo } from "../document/ApartOnTwo";

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
    <main className="fitting">
      <header className="fitting-head">
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
      <nav className="fitting-way" aria-label="Places">
        {["Before the first pin", ...steps.map((s) => s.title), "What was seen"].map((name, index) => {
          const asked = steps[index - 1];
          const marks = [
            index === at && "here",
            asked?.settled && "settled",
            asked?.suggested && "suggested",
          ];
          return (
            <button
              key={`${name} ${index}`}
              type="button"
              className={marks.filter(Boolean).join(" ")}
              aria-label={`${name}${asked?.settled ? ", entered" : ""}${asked?.suggested ? ", worth a look" : ""}`}
              aria-current={index === at ? "step" : undefined}
              onClick={() => {
                onGo(index);
              }}
            />
          );
        })}
      </nav>
      <p
        className={problem ? "fitting-kept trouble-words" : "fitting-kept"}
        role="status"
        data-stored={isStored}
      >
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
    <footer className="fitting-foot">
      {onBack && (
        <button type="button" className="foot-key" onClick={onBack}>
          Back
        </button>
      )}
      {children}
      <button type="button" className="foot-key next" onClick={onNext}>
        {next}
      </button>
    </footer>
  );
}
