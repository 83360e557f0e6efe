import { useMutation } from "@tanstack/react-query";
import { Button, Form, Input, Segmented } from "antd";
import { useState } from "react";
import { answer, api, problemOf, type Who } from "../api/client";
import { helpAt } from "../document/complaint";
import styles from "./start.module.css";

interface Entered {
  name?: string;
  email: string;
  password: string;
}

/** Sign in, or sign up: one form, so that nobody types an address twice. */
export function SignInForm({ onIn }: { onIn: (who: Who) => void }) {
  const [isNew, setIsNew] = useState(false);
  const enter = useMutation({
    mutationFn: ({ name, email, password }: Entered) =>
      isNew
        ? answer(api.POST("/api/v1/accounts", { body: { name: name ?? "", email, password } }))
        : answer(api.POST("/api/v1/session", { body: { email, password } })),
    onSuccess: onIn,
  });
  const problem = enter.error && problemOf(enter.error);
  return (
    <Form<Entered>
      layout="vertical"
      className={styles["sign-in"]}
      requiredMark={false}
      onFinish={(entered) => {
        enter.mutate(entered);
      }}
    >
      <Segmented
        aria-label="Account"
        options={[
          { value: "in", label: "I have an account" },
          { value: "new", label: "I am new here" },
        ]}
        value={isNew ? "new" : "in"}
        onChange={(chosen) => {
          setIsNew(chosen === "new");
          enter.reset();
        }}
      />
      {isNew && (
        <Form.Item name="name" label="What shall we call you?" {...helpAt(problem, "name")}>
          <Input autoComplete="name" maxLength={120} />
        </Form.Item>
      )}
      <Form.Item name="email" label="E-mail address" initialValue="" {...helpAt(problem, "email")}>
        <Input autoComplete="email" inputMode="email" />
      </Form.Item>
      <Form.Item
        name="password"
        label="Password"
        initialValue=""
        extra={isNew ? "Ten letters or more; a sentence is easiest to keep in mind." : undefined}
        {...helpAt(problem, "password")}
      >
        <Input.Password autoComplete={isNew ? "new-password" : "current-password"} />
      </Form.Item>
      {problem && !problem.errors?.length && (
        <p className="field-trouble" role="alert">
          {problem.title}. {problem.detail}
        </p>
      )}
      <Button type="primary" htmlType="submit" loading={enter.isPending}>
        {isNew ? "Make my account" : "Sign in"}
      </Button>
    </Form>
  );
}
