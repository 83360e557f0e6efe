import { useQuery } from "@tanstack/react-query";
import type { ManyWords } from "../api/client";
import * as queries from "../api/queries";

/** A choice that people have words for. */
type Choice = keyof ManyWords;

/** The words of every choice, by the core: for a value, and for a list of all. */
export function useWords() {
  const { data } = useQuery(queries.words);
  return {
    of: (choice: Choice, value: string): string =>
      data?.[choice].find((word) => word.value === value)?.words ?? "",
    // eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters -- whoever asks knows whose words they are
    options: <T extends string>(choice: Choice): { value: T; label: string }[] =>
      (data?.[choice] ?? []).map(({ value, words }) => ({ value: value as T, label: words })),
  };
}
