import { Segmented } from "antd";
import { useState } from "react";
import type { Garment, GarmentState, Pattern, TryOn } from "../api/client";
import { Saved } from "../document/Saved";
import { UndoTools } from "../document/UndoTools";
import type { Kept } from "../document/useKept";
import type { KeptWishes } from "../plan/useWishes";
import { PiecesPart } from "./PiecesPart";
import { SizePart } from "./SizePart";
import { ToilePart } from "./ToilePart";
import styles from "./paper.module.css";

interface Props {
  state: GarmentState;
  wishes: KeptWishes;
  facts: Kept<Garment>;
  tryOn: TryOn;
  /** The try-on is stored: pieces are drawn from what is. */
  isStored: boolean;
}

type Part = "pieces" | "size" | "toile";

/** The paper of a garment that is still to be made: which size is cut, and its pieces. */
export function PaperStage({ state, wishes, facts, tryOn, isStored }: Props) {
  const pattern = wishes.value.pattern ?? {};
  const isToChoose = (pattern.charts ?? []).length > 0 && !pattern.chosen;
  const isToile = facts.value.toile;
  const [part, setPart] = useState<Part>(isToile && isToChoose ? "size" : "pieces");
  const follows = [tryOn, isStored, facts.value, facts.isStored];
  const set = (changed: Partial<Pattern>) => {
    wishes.set({ pattern: { ...pattern, ...changed } });
  };
  return (
    <div className={styles["paper"]}>
      <div className={styles["kept"]}>
        {isToile && (
          <Segmented<Part>
            aria-label="Which part of the paper"
            options={[
              { value: "size", label: "Which size" },
              { value: "toile", label: "Toile" },
              { value: "pieces", label: "Pieces" },
            ]}
            value={part}
            onChange={setPart}
          />
        )}
        <UndoTools
          canUndo={wishes.canUndo}
          canRedo={wishes.canRedo}
          onUndo={wishes.undo}
          onRedo={wishes.redo}
        />
        <Saved isStored={wishes.isStored} problem={wishes.problem} onRetry={wishes.retry} />
      </div>
      {part === "size" ? (
        <SizePart
          id={state.id}
          wearer={state.wearer_id}
          pattern={pattern}
          follows={[facts.value, facts.isStored]}
          onSet={set}
          onFacts={(part) => {
            facts.change({ ...facts.value, ...part });
          }}
        />
      ) : part === "toile" ? (
        <ToilePart state={state} pattern={pattern} follows={follows} onSet={set} />
      ) : (
        <PiecesPart id={state.id} pattern={pattern} follows={follows} tryOn={tryOn.id ?? null} onSet={set} />
      )}
    </div>
  );
}
