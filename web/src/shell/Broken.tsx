import { Button } from "antd";
import { clsx } from "clsx";
import { useRouteError } from "react-router";
import styles from "./shell.module.css";

/** A page that broke by our own fault: nothing stored is lost, and it may be opened anew. */
export function Broken() {
  const error = useRouteError();
  return (
    <main className={clsx(styles["trouble"], "sheet")} role="alert">
      <h1>This page broke</h1>
      <p>That is a fault of Vemble. Everything that was stored is still there; open the page anew.</p>
      {error instanceof Error && <p className="quiet">What broke: {error.message}</p>}
      <Button
        type="primary"
        onClick={() => {
          location.reload();
        }}
      >
        Open it anew
      </Button>{" "}
      <Button href="/rail">To the rail</Button>
    </main>
  );
}
