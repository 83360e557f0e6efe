import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { v7 as newId } from "uuid";
import { answer, api, problemOf, type Did, type Logged, type Problem, type TaskLine } from "../api/client";
import * as queries from "../api/queries";
import { useSettings } from "../settings";

/** What lies ahead of one garment, with its tasks. */
export function useAhead(garment: string, waysOut = false) {
  const { tape } = useSettings();
  const ahead = useQuery(queries.ahead(tape, garment, waysOut));
  return { ...ahead, own: ahead.data?.garments.find((g) => g.id === garment) };
}

export interface Entered {
  did: Did;
  note?: string;
  minutes?: number;
}

/** Enters what was done to a task. What is sent twice is entered once: its id is made here. */
export function useLog(garment: string, state: string) {
  const client = useQueryClient();
  const { tape } = useSettings();
  const log = useMutation({
    mutationFn: async ({ task, entered }: { task: TaskLine; entered: Entered }) => {
      const { did, note, minutes } = entered;
      const entry: Logged = {
        id: newId(),
        state,
        at: new Date().toISOString(),
        task: task.key,
        did,
        ...(note && { note }),
        ...(minutes && { minutes }),
        ...(did === "done" && task.uses.length > 0 && { used: task.uses }),
      };
      const params = { path: { garment }, query: { tape } };
      await answer(api.POST("/api/v1/garments/{garment}/log", { params, body: { entries: [entry] } }));
    },
    onSettled: () => client.invalidateQueries(queries.everythingAhead),
  });
  const problem: Problem | null = log.isError ? problemOf(log.error) : null;
  return {
    enter: (task: TaskLine, entered: Entered) => log.mutateAsync({ task, entered }).catch(() => undefined),
    isBusy: log.isPending,
    problem,
  };
}
