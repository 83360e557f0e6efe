import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "antd";
import { clsx } from "clsx";
import { Navigate, useNavigate, useSearchParams } from "react-router";
import { answer, api, problemOf } from "../api/client";
import * as queries from "../api/queries";
import { SignInForm } from "./SignInForm";
import styles from "./start.module.css";

/** The way in: the example with one click, or an account of one's own. */
export default function StartPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [search] = useSearchParams();
  // Only a path of this site: nothing that leads elsewhere.
  const asked = search.get("back") ?? "";
  const back = /^\/[^/\\]/.test(asked) ? asked : "/rail";
  const goOn = async () => {
    void client.resetQueries();
    await navigate(back);
  };
  const who = useQuery(queries.who);
  const doors = useQuery(queries.doors);
  const open = useMutation({
    mutationFn: () => answer(api.POST("/api/v1/example/session")),
    onSuccess: () => void client.resetQueries(),
  });
  if (who.data?.household) return <Navigate to={back} replace />;
  return (
    <main className={styles["start"]}>
      <section className={styles["words"]}>
        <h1>From pins to a chalk line you can trust</h1>
        <p>
          Pin a garment on the body, type in what the tape says. Vemble makes both sides agree, draws the new
          stitching line, checks what the garment will measure, and gives you a card to chalk from.
        </p>
        {doors.data?.example && (
          <>
            <Button
              type="primary"
              size="large"
              loading={open.isPending}
              onClick={() => {
                // Whoever goes elsewhere while it opens is left there: this page stays until theirs is loaded.
                const stillHere = () => location.pathname === "/";
                open.mutate(undefined, { onSuccess: () => void (stillHere() && navigate(back)) });
              }}
            >
              Open the example
            </Button>
            <p className="quiet">
              A string quartet’s wardrobe, all of it made up. It is yours alone for a day: change what you
              like, and put it back at any time.
            </p>
            {open.isError && (
              <p role="alert" className={styles["trouble"]}>
                {problemOf(open.error).title}. {problemOf(open.error).detail}
              </p>
            )}
          </>
        )}
      </section>
      <section className={clsx(styles["own"], "sheet")}>
        <h2>A rail of your own</h2>
        {who.data && !who.data.example ? (
          <>
            <p>Signed in as {who.data.name}.</p>
            <Button type="primary" onClick={() => void navigate(back)}>
              To my rail
            </Button>
          </>
        ) : (
          <SignInForm offers={doors.data} onIn={() => void goOn()} />
        )}
      </section>
    </main>
  );
}
