import { useMutation } from "@tanstack/react-query";
import { Button, Form, Input, Segmented } from "antd";
import { useState } from "react";
import { answer, api, problemOf, type Offers, type Who } from "../api/client";
import { helpAt } from "../document/complaint";
import { Wrong } from "../shell/Wrong";
import styles from "./start.module.css";

interface Entered {
  name?: string;
  email: string;
  password: string;
  code?: string;
}

/** Sign in, or sign up: one form, so that nobody types an address twice. */
export function SignInForm({ offers, onIn }: { offers?: Offers | undefined; onIn: (who: Who) => void }) {
  const [isNew, setIsNew] = useState(false);
  const enter = useMutation({
    mutationFn: async ({ name = "", email, password, code }: Entered) => {
      // Nobody is told whether an address has an account: that shows when its owner signs in.
      if (isNew)
        await answer(api.POST("/api/v1/accounts", { body: { name, email, password, code: code ?? null } }));
      return answer(api.POST("/api/v1/session", { body: { email, password } }));
    },
    onSuccess: onIn,
  });
  const problem = enter.error ? problemOf(enter.error) : null;
  const isKnown = isNew && problem?.type === "wrong-password";
  return (
    <Form<Entered>
      layout="vertical"
      className={styles["sign-in"]}
      requiredMark={false}
      onFinish={(entered) => {
        enter.mutate(entered);
      }}
    >
      {offers?.sign_up !== "closed" && (
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
      )}
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
      {isNew && offers?.sign_up === "by_code" && (
        <Form.Item name="code" label="Code of your invitation" {...helpAt(problem, "code")}>
          <Input autoComplete="off" autoCapitalize="characters" maxLength={12} />
        </Form.Item>
      )}
      {isKnown ? (
        <p className="field-trouble" role="alert">
          There may be an account with this address already. If it is yours, sign in with its password.
        </p>
      ) : (
        <Wrong problem={problem} />
      )}
      <Button type="primary" htmlType="submit" loading={enter.isPending}>
        {isNew ? "Make my account" : "Sign in"}
      </Button>
    </Form>
  );
}
