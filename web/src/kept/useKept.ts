import { useCallback, useEffect, useReducer, useRef } from "react";
import { problemOf, type Problem } from "../api/client";

/** Something while it is worked on: what is shown, how to go back, and whether it is stored. */
interface Working<T> {
  past: T[];
  present: T;
  future: T[];
  /** What the server has, and the version a change has to name. */
  stored: T;
  version: number;
  problem: Problem | null;
  /** How often storing failed: a failure starts the next try, if there is something newer to store. */
  failures: number;
}

/** What somebody else stored meanwhile. */
export interface Theirs<T> {
  value: T;
  version: number;
}

type Action<T> =
  | { do: "change"; to: T }
  | { do: "undo" }
  | { do: "redo" }
  | { do: "stored"; sent: T; version: number }
  | { do: "failed"; sent: T; problem: Problem }
  | { do: "retry" }
  | { do: "take"; theirs: Theirs<T> }
  | { do: "keep"; theirs: Theirs<T> };

const isConflict = (problem: Problem) => problem.type === "stale";

function step<T>(working: Working<T>, action: Action<T>): Working<T> {
  const { past, present, future } = working;
  switch (action.do) {
    case "change":
      return { ...working, past: [...past, present], present: action.to, future: [], problem: null };
    case "undo": {
      const before = past.at(-1);
      if (before === undefined) return working;
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
      if (after === undefined) return working;
      return { ...working, past: [...past, present], present: after, future: rest, problem: null };
    }
    case "stored":
      return { ...working, stored: action.sent, version: action.version, problem: null };
    case "failed": {
      // What was wrong with an older state says nothing of what is shown now; only a conflict stays one.
      const isOld = action.sent !== present && !isConflict(action.problem);
      return { ...working, problem: isOld ? null : action.problem, failures: working.failures + 1 };
    }
    case "retry":
      return { ...working, problem: null };
    case "take":
      return {
        ...working,
        past: [...past, present],
        present: action.theirs.value,
        future: [],
        stored: action.theirs.value,
        version: action.theirs.version,
        problem: null,
      };
    case "keep":
      return { ...working, stored: action.theirs.value, version: action.theirs.version, problem: null };
  }
}

const draftKey = (key: string) => `vemble.draft.${key}`;

/** What was typed here and could not be stored before the page was left. */
function draftOf<T>(key: string): Theirs<T> | null {
  try {
    return JSON.parse(localStorage.getItem(draftKey(key)) ?? "null") as Theirs<T> | null;
  } catch {
    return null;
  }
}

/** Forgets everything that was kept here: whoever signs in next starts clean. */
export function forgetDrafts(): void {
  for (const key of Object.keys(localStorage)) {
    if (key.startsWith("vemble.draft.")) localStorage.removeItem(key);
  }
}

/** Wait for the hand to pause before storing, in ms. */
const PAUSE = 350;
/** Ask again after nothing answered, in ms. */
const AGAIN = 3000;

interface Keep<T> {
  /** What it is kept under while it is not stored. */
  id: string;
  initial: T;
  version: number;
  /** Stores it and gives the new version. */
  store: (version: number, value: T) => Promise<number>;
  /** Whether Ctrl Z belongs to it just now. */
  undoable?: boolean;
}

/** Keeps something: every change is stored at once, survives leaving the page, and can be undone. */
export function useKept<T>({ id, initial, version, store, undoable = true }: Keep<T>) {
  const [working, dispatch] = useReducer(step<T>, null, (): Working<T> => {
    const draft = draftOf<T>(id);
    return {
      past: [],
      present: draft?.value ?? initial,
      future: [],
      stored: initial,
      version: draft?.version ?? version,
      problem: null,
      failures: 0,
    };
  });
  const sending = useRef(false);
  const newest = useRef(store);
  const { present, stored, problem } = working;
  const isStored = present === stored;

  useEffect(() => {
    newest.current = store;
  }, [store]);

  useEffect(() => {
    if (isStored) localStorage.removeItem(draftKey(id));
    else localStorage.setItem(draftKey(id), JSON.stringify({ version: working.version, value: present }));
  }, [id, isStored, present, working.version]);

  useEffect(() => {
    if (isStored || problem) return;
    const timer = setTimeout(() => {
      if (sending.current) return;
      sending.current = true;
      newest
        .current(working.version, present)
        .then(
          (made) => {
            dispatch({ do: "stored", sent: present, version: made });
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
  }, [isStored, present, problem, working.version, working.failures]);

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
    if (!undoable) return;
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
  }, [undoable]);

  return {
    value: present,
    isStored,
    problem,
    canUndo: working.past.length > 0,
    canRedo: working.future.length > 0,
    change: useCallback((to: T) => {
      dispatch({ do: "change", to });
    }, []),
    undo: useCallback(() => {
      dispatch({ do: "undo" });
    }, []),
    redo: useCallback(() => {
      dispatch({ do: "redo" });
    }, []),
    /** Tries once more, after signing in again. */
    retry: useCallback(() => {
      dispatch({ do: "retry" });
    }, []),
    /** After somebody else was faster: go on with what is stored, or with what is here. */
    take: (theirs: Theirs<T>) => {
      dispatch({ do: "take", theirs });
    },
    keep: (theirs: Theirs<T>) => {
      dispatch({ do: "keep", theirs });
    },
  };
}
