import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Skeleton } from "antd";
import { answer, api, problemOf, type SessionLine } from "../api/client";
import { Wrong } from "../shell/Wrong";
import styles from "./account.module.css";

const key = ["sessions"];
const day = new Intl.DateTimeFormat("en", { day: "numeric", month: "long" });
const moment = new Intl.DateTimeFormat("en", {
  day: "numeric",
  month: "long",
  hour: "2-digit",
  minute: "2-digit",
  hourCycle: "h23",
});

/** Where the account is signed in; each can be ended. */
export function Devices() {
  const client = useQueryClient();
  const sessions = useQuery({ queryKey: key, queryFn: () => answer(api.GET("/api/v1/sessions")) });
  const end = useMutation({
    mutationFn: (session: string) =>
      answer(api.DELETE("/api/v1/sessions/{session}", { params: { path: { session } } })),
    onSettled: () => client.invalidateQueries({ queryKey: key }),
  });
  return (
    <section className="sheet">
      <h2>Where you are signed in</h2>
      {sessions.isPending && <Skeleton active paragraph={{ rows: 2 }} title={false} />}
      <Wrong problem={sessions.error ? problemOf(sessions.error) : null} />
      <ul className={styles["devices"]}>
        {(sessions.data ?? []).map((session) => (
          <li key={session.id}>
            <Device session={session} />
            {!session.this && (
              <Button
                size="small"
                loading={end.isPending && end.variables === session.id}
                onClick={() => {
                  end.mutate(session.id);
                }}
              >
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Wrong problem={end.error ? problemOf(end.error) : null} />
    </section>
  );
}

function Device({ session }: { session: SessionLine }) {
  const { device, created, seen } = session;
  return (
    <div>
      <strong>{device}</strong>
      {session.this && <span className={styles["here"]}>here</span>}
      <div className="quiet">
        since {day.format(new Date(created))}, last used {moment.format(new Date(seen))}
      </div>
    </div>
  );
}
