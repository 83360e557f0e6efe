import { useCallback, useEffect, useRef, useState } from "react";
import {
  answer,
  api,
  problemOf,
  type Document,
  type Problem,
  type Solved,
  type Tape,
  type TryOn,
} from "../api/client";

interface Job {
  document: Document;
  tape: Tape;
}

/**
 * Everything derived from a document, kept up with it: at most one request is under way, and the newest state is asked
 * for next. The last good result stays while a new one is on its way or cannot be made.
 *
 * `preview` asks for a state that is not kept, at once, without waiting for anything to be painted first.
 */
export function useSolved(document: Document, tape: Tape) {
  const [state, setState] = useState<{ solved: Solved | null; problem: Problem | null }>({
    solved: null,
    problem: null,
  });
  const wanted = useRef<Job | null>(null);
  const busy = useRef(false);
  const ask = useCallback((job: Job) => {
    wanted.current = job;
    if (busy.current) return;
    busy.current = true;
    void (async () => {
      let next: Job | null;
      while ((next = wanted.current)) {
        wanted.current = null;
        try {
          const request = api.POST("/api/v1/solve", {
            params: { query: { tape: next.tape } },
            body: next.document,
          });
          const solved = await answer(request);
          setState({ solved, problem: null });
        } catch (error) {
          const problem = problemOf(error);
          setState((before) => ({ ...before, problem }));
        }
      }
      busy.current = false;
    })();
  }, []);
  useEffect(() => {
    ask({ document, tape });
  }, [ask, document, tape]);
  const preview = useCallback(
    (tryOn: TryOn) => {
      ask({ document: { ...document, try_ons: [tryOn] }, tape });
    },
    [ask, document, tape],
  );
  return { ...state, preview };
}
