import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Form, Input, Skeleton } from "antd";
import { useNavigate } from "react-router";
import { answer, api, problemOf } from "../api/client";
import { helpAt } from "../kept/complaint";
import { forgetDrafts } from "../kept/useKept";
import { Trouble } from "../shell/Trouble";
import "./account.css";

/** One's own account: the password, and leaving for good. */
export default function AccountPage() {
  const who = useQuery({ queryKey: ["who"], queryFn: () => answer(api.GET("/api/v1/session")) });
  if (who.isPending) {
    return (
      <main className="account-page">
        <Skeleton active />
      </main>
    );
  }
  if (who.isError) return <Trouble problem={problemOf(who.error)} />;
  const { name, email, example, household } = who.data;
  return (
    <main className="account-page">
      <h1>{name}</h1>
      {email && <p className="quiet">signs in as {email}</p>}
      {example && (
        <p>
          This is the example: it has no password and belongs to everybody who opens it. Sign out to make a
          rail of your own.
        </p>
      )}
      {household && <p>This Vemble serves one household; whoever reaches this machine is in.</p>}
      {email && (
        <>
          <Password />
          <Leave />
        </>
      )}
    </main>
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
  const queries = useQueryClient();
  const leave = useMutation({
    mutationFn: (body: { password: string }) => answer(api.DELETE("/api/v1/account", { body })),
    onSuccess: async () => {
      forgetDrafts();
      queries.clear();
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
