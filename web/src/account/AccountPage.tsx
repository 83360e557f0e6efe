import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Form, Input, Skeleton } from "antd";
import { useNavigate } from "react-router";
import { answer, api, problemOf } from "../api/client";
import * as queries from "../api/queries";
import { helpAt } from "../document/complaint";
import { forgetDrafts } from "../document/drafts";
import { Trouble } from "../shell/Trouble";
import { Wrong } from "../shell/Wrong";
import { Devices } from "./Devices";
import { Keeping } from "./Keeping";
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
          This is an example of your own: nobody else sees it, and it is forgotten after a day. Sign out to
          make a rail that stays.
        </p>
      )}
      {household && <p>This Vemble serves one household; whoever reaches this machine is in.</p>}
      <Keeping />
      <DigitalTape />
      {email && (
        <>
          <Devices />
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
  const problem = pair.error ? problemOf(pair.error) : null;
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
          <Wrong problem={problem} />
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
  const problem = change.error ? problemOf(change.error) : null;
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
        <Wrong problem={problem} />
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
      void client.resetQueries();
      await navigate("/");
    },
  });
  const problem = leave.error ? problemOf(leave.error) : null;
  return (
    <section className="sheet">
      <h2>Delete the account</h2>
      <p>
        Every wearer, garment, try-on and photo in it goes with it, at once and for good. Save everything
        first if you may want it again.
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
        <Wrong problem={problem} />
        <Button danger htmlType="submit" loading={leave.isPending}>
          Delete everything
        </Button>
      </Form>
    </section>
  );
}
