import type { Problem } from "../api/client";

/** What a form shows at one field of a problem: nothing where that field is well. */
export function helpAt(problem: Problem | null, field: string) {
  const wrong = problem?.errors?.find((e) => e.path === field);
  return wrong
    ? { validateStatus: "error" as const, help: `${wrong.found}. Expected ${wrong.expected}.` }
    : {};
}
