import { useEffect, useRef, useState } from "react";
import { answer, api, problemOf, type Document, type Problem, type Solved, type Tape } from "../api/client";

interface Job {
  document: Document;
  tape: Tape;
}

/**
 * Everything derived from a document, kept up with it: at most one request is under way, and the newest state is asked
 * for next. The last good result stays while a new one is on its way or cannot be made.
 */
export function useSolved(
  document: Document,
  tape: Tape,
): { solved: Solved | null; problem: Problem | null } {
  const [state, setState] = useState<{ solved: Solved | null; problem: Problem | null }>({
    solved: null,
    problem: null,
  });
  const wanted = useRef<Job | null>(null);
  const busy = useRef(false);
  useEffect(() => {
    wanted.current = { document, tape };
    if (busy.current) return;
    busy.current = true;
    void (async () => {
      let job: Job | null;
      while ((job = wanted.current)) {
        wanted.current = null;
        try {
          const { document: body, tape: on } = job;
          const request = api.POST("/api/v1/solve", { params: { query: { tape: on } }, body });
          const solved = await answer(request);
          setState({ solved, problem: null });
        } catch (error) {
          const problem = problemOf(error);
          setState((before) => ({ ...before, problem }));
        }
      }
      busy.current = false;
    })();
  }, [document, tape]);
  return state;
}
