import { Button } from "antd";
import { clsx } from "clsx";
import { useNavigate } from "react-router";
import type { Problem } from "../api/client";
import { RequestId } from "./Wrong";
import styles from "./shell.module.css";

/** A page that could not be shown: what was wrong, and what to do. */
export function Trouble({ problem, retry }: { problem: Problem; retry?: () => void }) {
  const navigate = useNavigate();
  const signedOut = problem.status === 401;
  return (
    <main className={clsx(styles["trouble"], "sheet")} role="alert">
      <h1>{problem.title}</h1>
      <p>{problem.detail}</p>
      <RequestId problem={problem} />
      {retry && !signedOut && (
        <Button type="primary" onClick={retry}>
          Try again
        </Button>
      )}{" "}
      <Button
        onClick={() => void navigate(signedOut ? `/?back=${encodeURIComponent(location.pathname)}` : "/rail")}
      >
        {signedOut ? "Sign in" : "To the rail"}
      </Button>
    </main>
  );
}
