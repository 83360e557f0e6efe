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
import { documentOf } from "./changes";

interface Job {
  document: Document;
  tape: Tape;
  /** The hand still moves: what would mend a check is asked for once it lets go. */
  dragged: boolean;
}

/**
 * Everything derived from a try-on, kept up with it: at most one request is under way, and the newest state is asked
 * for next. The last good result stays while a new one is on its way or cannot be made.
 *
 * `preview` asks for a state that is not kept yet, at once, without waiting for anything to be painted first. It stays in force while the
 * hand holds it, whatever is stored or arrives meanwhile, until `letGo`.
 */
export function useSolved(garment: Document, tryOn: TryOn, tape: Tape) {
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
            params: { query: { tape: next.tape, dragged: next.dragged } },
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
  const held = useRef<TryOn | null>(null);
  const askAsHeld = useCallback(() => {
    const dragged = held.current !== null;
    ask({ document: documentOf(garment, [held.current ?? tryOn]), tape, dragged });
  }, [ask, garment, tryOn, tape]);
  // What was let go of may be kept in the same breath: one question for both.
  const [times, setTimes] = useState(0);
  useEffect(askAsHeld, [askAsHeld, times]);
  const preview = useCallback(
    (tryOn: TryOn) => {
      held.current = tryOn;
      askAsHeld();
    },
    [askAsHeld],
  );
  const letGo = useCallback(() => {
    if (!held.current) return;
    held.current = null;
    setTimes((times) => times + 1);
  }, []);
  return { ...state, preview, letGo };
}
