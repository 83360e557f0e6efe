import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Form, Input, Skeleton } from "antd";
import { useNavigate } from "react-router";
import { answer, api, problemOf } from "../api/client";
import * as queries from "../api/queries";
import { helpAt } from "../document/complaint";
import { forgetDrafts } from "../document/drafts";
import { Trouble } from "../shell/Trouble";
import styles from "./account.module.css";

/** One's own account: the password, and leaving for good. */
export default function AccountPage() {
  const who = useQuery(queries.who);
  if (who.isPending) {
    return (
      <main className={styles["account-page"]}>
        <Skeleton active />
      </main>
    );
  }
  if (who.isError) return <Trouble problem={problemOf(who.error)} />;
  const { name, email, example, household } = who.data;
  return (
    <main className={styles["account-page"]}>
      <h1>{name}</h1>
      {email && <p className="quiet">signs in as {email}</p>}
      {example && (
        <p>
          This is the example: it has no password and belongs to everybody who opens it. Sign out to make a
          rail of your own.
        </p>
      )}
      {household && <p>This Vemble serves one household; whoever reaches this machine is in.</p>}
      <DigitalTape />
      {email && (
        <>
          <Password />
          <Leave />
        </>
      )}
    </main>
  );
}

/** A digital tape measure: paired by the code on its display, it sends what it reads to the number pad. */
function DigitalTape() {
  const client = useQueryClient();
  const key = ["tape"];
  const tape = useQuery({
    queryKey: key,
    queryFn: () => answer(api.GET("/api/v1/tape")),
    refetchInterval: 3000,
  });
  const refresh = () => client.invalidateQueries({ queryKey: key });
  const pair = useMutation({
    mutationFn: (body: { code: string }) => answer(api.POST("/api/v1/tape", { body })),
    onSuccess: refresh,
  });
  const part = useMutation({ mutationFn: () => answer(api.DELETE("/api/v1/tape")), onSuccess: refresh });
  const problem = pair.error && problemOf(pair.error);
  const { connected = false, paired = false, battery } = tape.data ?? {};
  const low = typeof battery === "number" && battery < 15;
  return (
    <section className="sheet">
      <h2>Digital tape</h2>
      {paired ? (
        <>
          <p role="status">
            {connected
              ? "Paired: what it reads goes to the number pad of the fitting mode."
              : "Paired, but out of reach."}
            {typeof battery === "number" && ` Battery ${battery} %.`}
          </p>
          {low && <p className="field-trouble">Its battery is low: charge it before the next try-on.</p>}
          <Button
            onClick={() => {
              part.mutate();
            }}
          >
            Part from it
          </Button>
        </>
      ) : (
        <>
          <p>
            {connected
              ? "A tape is in reach. Type the six digits on its display."
              : "No tape is switched on in reach."}
          </p>
          {connected && (
            <Form
              layout="inline"
              onFinish={(entered: { code: string }) => {
                pair.mutate(entered);
              }}
            >
              <Form.Item name="code" label="Code" initialValue="">
                <Input inputMode="numeric" maxLength={6} autoComplete="off" />
              </Form.Item>
              <Button type="primary" htmlType="submit" loading={pair.isPending}>
                Pair
              </Button>
            </Form>
          )}
          {problem && (
            <p className="field-trouble" role="alert">
              {problem.title}. {problem.detail}
            </p>
          )}
        </>
      )}
    </section>
  );
}

function Password() {
  const { message } = App.useApp();
  const [form] = Form.useForm<{ old: string; new: string }>();
  const change = useMutation({
    mutationFn: (body: { old: string; new: string }) => answer(api.PUT("/api/v1/account/password", { body })),
    onSuccess: () => {
      form.resetFields();
      void message.success("Changed. Every other place you were signed in has been signed out.");
    },
  });
  const problem = change.error && problemOf(change.error);
  return (
    <section className="sheet">
      <h2>Change the password</h2>
      <Form
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={(entered) => {
          change.mutate(entered);
        }}
      >
        <Form.Item name="old" label="The present one" initialValue="" {...helpAt(problem, "old")}>
          <Input.Password autoComplete="current-password" />
        </Form.Item>
        <Form.Item
          name="new"
          label="The next one"
          initialValue=""
          extra="Ten letters or more."
          {...helpAt(problem, "new")}
        >
          <Input.Password autoComplete="new-password" />
        </Form.Item>
        {problem && !problem.errors?.length && (
          <p className="field-trouble" role="alert">
            {problem.title}. {problem.detail}
          </p>
        )}
        <Button type="primary" htmlType="submit" loading={change.isPending}>
          Change it
        </Button>
      </Form>
    </section>
  );
}

function Leave() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const leave = useMutation({
    mutationFn: (body: { password: string }) => answer(api.DELETE("/api/v1/account", { body })),
    onSuccess: async () => {
      forgetDrafts();
      client.clear();
      await navigate("/");
    },
  });
  const problem = leave.error && problemOf(leave.error);
  return (
    <section className="sheet">
      <h2>Delete the account</h2>
      <p>
        Every wearer, garment, try-on and photo in it goes with it, at once and for good. Export what you want
        to keep first.
      </p>
      <Form
        layout="vertical"
        requiredMark={false}
        onFinish={(entered: { password: string }) => {
          leave.mutate(entered);
        }}
      >
        <Form.Item name="password" label="Your password" initialValue="" {...helpAt(problem, "password")}>
          <Input.Password autoComplete="current-password" />
        </Form.Item>
        {problem && !problem.errors?.length && (
          <p className="field-trouble" role="alert">
            {problem.title}. {problem.detail}
          </p>
        )}
        <Button danger htmlType="submit" loading={leave.isPending}>
          Delete everything
        </Button>
      </Form>
    </section>
  );
}
