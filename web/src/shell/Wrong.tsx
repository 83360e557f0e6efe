import type { Problem } from "../api/client";

/** What a form is told as a whole: nothing where it is said at its fields. What was ours to get right names its request, for whoever looks. */
export function Wrong({ problem }: { problem: Problem | null }) {
  if (!problem || problem.errors?.length) return null;
  return (
    <p className="field-trouble" role="alert">
      {problem.title}. {problem.detail}
      <RequestId problem={problem} />
    </p>
  );
}

/** By which the log of the server tells what happened. */
export function RequestId({ problem }: { problem: Problem }) {
  if (!problem.request || problem.status < 500) return null;
  return <span className="request-id">Request {problem.request}</span>;
}
