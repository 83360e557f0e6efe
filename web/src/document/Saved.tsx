import { Alert, Button, Modal } from "antd";
import { clsx } from "clsx";
import { useState, type ReactNode } from "react";
import type { Problem } from "../api/client";
import { SignInForm } from "../start/SignInForm";
import styles from "./document.module.css";

/** Whether what is shown is stored, and if not, why; with the way back in when the session ended meanwhile. */
export function Saved({
  isStored,
  problem,
  onRetry,
}: {
  isStored: boolean;
  problem: Problem | null;
  onRetry: () => void;
}) {
  const [signingIn, setSigningIn] = useState(false);
  const words = () => {
    if (problem?.status === 422 || problem?.status === 400) return "Kept here; stored once it can be read";
    if (problem?.status === 401) return "Kept here; sign in again to store it";
    if (problem) return `Kept here, not stored yet: ${problem.title.toLowerCase()}`;
    return isStored ? "Stored" : "Storing…";
  };
  return (
    <p
      className={clsx(styles["saved"], problem ? "trouble-words" : "quiet")}
      role="status"
      data-stored={isStored}
    >
      {words()}{" "}
      {problem?.status === 401 && (
        <Button
          size="small"
          onClick={() => {
            setSigningIn(true);
          }}
        >
          Sign in again
        </Button>
      )}
      <Modal
        title="Sign in again"
        open={signingIn}
        footer={null}
        destroyOnHidden
        onCancel={() => {
          setSigningIn(false);
        }}
      >
        <p>Everything you typed is still here; it is stored as soon as you are in.</p>
        <SignInForm
          onIn={() => {
            setSigningIn(false);
            onRetry();
          }}
        />
      </Modal>
    </p>
  );
}

/** Somebody else was faster: both states, and the choice between them. */
export function Conflict({
  what,
  there,
  here,
  onTake,
  onKeep,
}: {
  what: string;
  there: ReactNode;
  here: ReactNode;
  onTake: () => void;
  onKeep: () => void;
}) {
  return (
    <Alert
      className={clsx(styles["conflict"])}
      type="warning"
      showIcon
      title={`This ${what} was changed somewhere else`}
      description={
        <>
          <p>
            <strong>There:</strong> {there}
          </p>
          <p>
            <strong>Here:</strong> {here}
          </p>
          <Button onClick={onTake}>Go on with the one there</Button>{" "}
          <Button type="primary" onClick={onKeep}>
            Go on with the one here
          </Button>
        </>
      }
    />
  );
}
