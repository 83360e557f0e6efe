import { useCallback, useEffect, useReducer, useRef } from "react";
import { answer, api, problemOf, type Problem, type Tape, type TryOn, type TryOnState } from "../api/client";

/** A try-on while it is worked on: what is shown, how to go back, and whether it is stored. */
interface Working {
  past: TryOn[];
  present: TryOn;
  future: TryOn[];
  /** What the server has, and the version a change has to name. */
  stored: TryOn;
  version: number;
  problem: Problem | null;
  /** How often storing failed: a failure starts the next try, if there is something newer to store. */
  failures: number;
}

type Action =
  | { do: "change"; to: TryOn }
  | { do: "undo" }
  | { do: "redo" }
  | { do: "stored"; sent: TryOn; version: number }
  | { do: "failed"; sent: TryOn; problem: Problem }
  | { do: "retry" }
  | { do: "take"; theirs: TryOnState }
  | { do: "keep"; theirs: TryOnState };

function step(working: Working, action: Action): Working {
  const { past, present, future } = working;
  switch (action.do) {
    case "change":
      return { ...working, past: [...past, present], present: action.to, future: [], problem: null };
    case "undo": {
      const before = past.at(-1);
      if (!before) return working;
      return {
        ...working,
        past: past.slice(0, -1),
        present: before,
        future: [present, ...future],
        problem: null,
      };
    }
    case "redo": {
      const [after, ...rest] = future;
      if (!after) return working;
      return { ...working, past: [...past, present], present: after, future: rest, problem: null };
    }
    case "stored":
      return { ...working, stored: action.sent, version: action.version, problem: null };
    case "failed": {
      // What was wrong with an older state says nothing of what is shown now; only a conflict stays one.
      const isOld = action.sent !== present && !action.problem.stored;
      return { ...working, problem: isOld ? null : action.problem, failures: working.failures + 1 };
    }
    case "retry":
      return { ...working, problem: null };
    case "take":
      return {
        ...working,
        past: [...past, present],
        present: action.theirs.try_on,
        future: [],
        stored: action.theirs.try_on,
        version: action.theirs.version,
        problem: null,
      };
    case "keep":
      return { ...working, stored: action.theirs.try_on, version: action.theirs.version, problem: null };
  }
}

const draftKey = (id: string) => `vemble.draft.${id}`;

/** What was typed here and could not be stored before the page was left. */
function draftOf(id: string): TryOnState | null {
  try {
    return JSON.parse(localStorage.getItem(draftKey(id)) ?? "null") as TryOnState | null;
  } catch {
    return null;
  }
}

function start({ stored, version, id }: { stored: TryOn; version: number; id: string }): Working {
  const draft = draftOf(id);
  return {
    past: [],
    present: draft?.try_on ?? stored,
    future: [],
    stored,
    version: draft?.version ?? version,
    problem: null,
    failures: 0,
  };
}

/** Wait for the hand to pause before storing, in ms. */
const PAUSE = 350;
/** Ask again after nothing answered, in ms. */
const AGAIN = 3000;

/** Keeps a try-on: every change is stored at once, survives leaving the page, and can be undone. */
export function useTryOn(garment: string, id: string, initial: TryOn, version: number, tape: Tape) {
  const [working, dispatch] = useReducer(step, { stored: initial, version, id }, start);
  const sending = useRef(false);
  const { present, stored, problem } = working;
  const isStored = present === stored;

  useEffect(() => {
    if (isStored) localStorage.removeItem(draftKey(id));
    else localStorage.setItem(draftKey(id), JSON.stringify({ version: working.version, try_on: present }));
  }, [id, isStored, present, working.version]);

  useEffect(() => {
    if (isStored || problem) return;
    const timer = setTimeout(() => {
      if (sending.current) return;
      sending.current = true;
      answer(
        api.PUT("/api/v1/garments/{garment}/try-ons/{try_on}", {
          params: { path: { garment, try_on: id }, query: { tape } },
          body: { version: working.version, try_on: present },
        }),
      )
        .then(
          (answered) => {
            dispatch({ do: "stored", sent: present, version: answered.version });
          },
          (error: unknown) => {
            dispatch({ do: "failed", sent: present, problem: problemOf(error) });
          },
        )
        .finally(() => {
          sending.current = false;
        });
    }, PAUSE);
    return () => {
      clearTimeout(timer);
    };
  }, [garment, id, isStored, present, problem, tape, working.version, working.failures]);

  useEffect(() => {
    if (problem?.status !== 0 && problem?.status !== 503) return;
    const timer = setTimeout(() => {
      dispatch({ do: "retry" });
    }, AGAIN);
    return () => {
      clearTimeout(timer);
    };
  }, [problem]);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
      if (typing || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z") return;
      event.preventDefault();
      dispatch({ do: event.shiftKey ? "redo" : "undo" });
    };
    addEventListener("keydown", onKey);
    return () => {
      removeEventListener("keydown", onKey);
    };
  }, []);

  return {
    tryOn: present,
    isStored,
    problem,
    canUndo: working.past.length > 0,
    canRedo: working.future.length > 0,
    change: useCallback((to: TryOn) => {
      dispatch({ do: "change", to });
    }, []),
    undo: useCallback(() => {
      dispatch({ do: "undo" });
    }, []),
    redo: useCallback(() => {
      dispatch({ do: "redo" });
    }, []),
    /** After somebody else was faster: go on with what is stored, or with what is here. */
    take: (theirs: TryOnState) => {
      dispatch({ do: "take", theirs });
    },
    keep: (theirs: TryOnState) => {
      dispatch({ do: "keep", theirs });
    },
  };
}
