import { RedoOutlined, UndoOutlined } from "@ant-design/icons";
import { Button, Tooltip } from "antd";
import styles from "./document.module.css";

interface Props {
  canUndo: boolean;
  canRedo: boolean;
  onUndo: () => void;
  onRedo: () => void;
}

/** One step back, one step on. */
export function UndoTools({ canUndo, canRedo, onUndo, onRedo }: Props) {
  return (
    <span className={styles["undo"]}>
      <Tooltip title="Undo (Ctrl Z)">
        <Button type="text" icon={<UndoOutlined />} aria-label="Undo" disabled={!canUndo} onClick={onUndo} />
      </Tooltip>
      <Tooltip title="Redo (Ctrl Shift Z)">
        <Button type="text" icon={<RedoOutlined />} aria-label="Redo" disabled={!canRedo} onClick={onRedo} />
      </Tooltip>
    </span>
  );
}
