import { Input, type InputRef } from "antd";
import { useEffect, useState, type KeyboardEvent, type Ref } from "react";
import { answer, api, problemOf, type Complaint, type Tape } from "../api/client";
import { useSettings } from "../settings";
import styles from "./document.module.css";

interface Props {
  /** What it is, for those who cannot see the column. */
  label: string;
  /** What is shown while nobody types, on the current tape. */
  shown: string;
  /** Kept under this name while it could not be read, so that leaving the page loses nothing. */
  keep?: string;
  /** What the server found wrong with the stored value. */
  complaint?: Complaint | undefined;
  placeholder?: string;
  fieldRef?: Ref<InputRef>;
  /** A length was read; `"4.5 cm"`, as documents hold it. */
  onRead: (measure: string) => void;
  /** The field was emptied, where it may be. */
  onEmpty?: () => void;
  /** Several lines were pasted at once: a column of figures that begins here. */
  onColumn?: (lines: string[]) => void;
  onEnter?: () => void;
  /** What is typed cannot be read, or can again. */
  onTrouble?: (isThere: boolean) => void;
}

/** A length as somebody wrote it, read by the server: as documents hold it. */
export async function readLength(text: string, tape: Tape): Promise<string> {
  const { measure } = await answer(api.GET("/api/v1/length", { params: { query: { text, tape } } }));
  return measure;
}

/** A field for one length, as people write it: the server reads it, and what it cannot read stays here with the reason. */
export function LengthField({
  label,
  shown,
  keep,
  complaint,
  placeholder,
  fieldRef,
  onRead,
  onEmpty,
  onColumn,
  onEnter,
  onTrouble,
}: Props) {
  const { tape } = useSettings();
  const kept = keep ? `vemble.draft.field.${keep}` : null;
  const [typed, setTyped] = useState<string | null>(() => kept && localStorage.getItem(kept));
  const [wrong, setWrong] = useState<Complaint | null>(null);
  const forget = () => {
    setTyped(null);
    setWrong(null);
    if (kept) localStorage.removeItem(kept);
  };
  const read = async (text: string) => {
    if (text.trim() === "" || text.trim() === shown) {
      forget();
      if (text.trim() === "" && shown !== "") onEmpty?.();
      return text.trim() !== "";
    }
    try {
      const measure = await readLength(text, tape);
      forget();
      onRead(measure);
      return true;
    } catch (error) {
      const problem = problemOf(error);
      if (kept) localStorage.setItem(kept, text);
      setWrong(problem.errors?.[0] ?? { path: "", found: problem.title, expected: problem.detail });
      return false;
    }
  };
  // What was kept from before is read again, so that its reason is shown again.
  useEffect(() => {
    if (typed === null) return;
    const timer = setTimeout(() => void read(typed));
    return () => {
      clearTimeout(timer);
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the field appears
  }, []);
  const isWrong = wrong !== null;
  useEffect(() => {
    onTrouble?.(isWrong);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- when it changes, whoever is told
  }, [isWrong]);
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === "Enter") {
      event.preventDefault();
      void read(typed ?? shown).then((done) => {
        if (done) onEnter?.();
      });
    } else if (event.key === "Escape") {
      forget();
    }
  };
  const trouble = wrong ?? complaint;
  return (
    <div className={styles["length"]}>
      <Input
        ref={fieldRef ?? null}
        aria-label={label}
        aria-invalid={trouble ? true : undefined}
        className="figure"
        inputMode="text"
        autoComplete="off"
        placeholder={placeholder ?? ""}
        {...(trouble ? { status: "error" as const } : {})}
        value={typed ?? shown}
        onChange={(event) => {
          setTyped(event.target.value);
          setWrong(null);
        }}
        onFocus={(event) => {
          event.target.select();
        }}
        onPaste={(event) => {
          const lines = event.clipboardData.getData("text").trimEnd().split(/\r?\n/);
          if (!onColumn || lines.length < 2) return;
          event.preventDefault();
          onColumn(lines);
        }}
        onBlur={() => {
          if (typed !== null) void read(typed);
        }}
        onKeyDown={onKeyDown}
      />
      {trouble && (
        <p className="field-trouble" role="alert">
          {trouble.found}. Expected {trouble.expected}.
        </p>
      )}
    </div>
  );
}
