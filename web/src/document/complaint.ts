import type { Problem } from "../api/client";

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** What a form shows at one field of a problem: nothing where that field is well. */
export function helpAt(problem: Problem | null, field: string) {
  const wrong = problem?.errors?.find((e) => e.path === field);
  return wrong
    ? { validateStatus: "error" as const, help: `${capital(wrong.found)}. Expected ${wrong.expected}.` }
    : {};
}
