import type { GarmentState, Pattern } from "../api/client";
import { Saved } from "../document/Saved";
import { UndoTools } from "../document/UndoTools";
import type { KeptWishes } from "../plan/useWishes";
import { SizePart } from "./SizePart";
import styles from "./paper.module.css";

/** The paper of a garment that is still to be made: which size is cut. */
export function PaperStage({ state, wishes }: { state: GarmentState; wishes: KeptWishes }) {
  const pattern = wishes.value.pattern ?? {};
  const set = (part: Partial<Pattern>) => {
    wishes.set({ pattern: { ...pattern, ...part } });
  };
  return (
    <div className={styles["paper"]}>
      <div className={styles["kept"]}>
        <UndoTools
          canUndo={wishes.canUndo}
          canRedo={wishes.canRedo}
          onUndo={wishes.undo}
          onRedo={wishes.redo}
        />
        <Saved isStored={wishes.isStored} problem={wishes.problem} onRetry={wishes.retry} />
      </div>
      <SizePart id={state.id} pattern={pattern} onSet={set} />
    </div>
  );
}
