import { useCallback, useEffect, useReducer, useRef } from "react";
import { problemOf, type Prefer, type Problem } from "../api/client";
import { dropDraft, keepDraft, type Draft } from "./drafts";

/** Something while it is worked on: what is shown, how to go back, and whether it is stored. */
interface Working<T> {
  past: T[];
  present: T;
  future: T[];
  /** What the server has, and the version a change has to name. */
  stored: T;
  version: number;
  problem: Problem | null;
  /** Whose entries are taken where two devices changed the same. */
  prefer: Prefer | undefined;
  /** How often storing failed: a failure starts the next try, if there is something newer to store. */
  failures: number;
}

/** A state of the server's. */
export interface Theirs<T> {
  value: T;
  version: number;
}

/** What storing gives: the new version, and the state where others' entries were brought together with this. */
export interface Made<T> {
  version: number;
  value?: T;
}

type Action<T> =
  | { do: "change"; to: T }
  | { do: "undo" }
  | { do: "redo" }
  | { do: "stored"; sent: T; made: Made<T>; way: Way<T> | null }
  | { do: "failed"; sent: T; problem: Problem }
  | { do: "retry" }
  | { do: "adopt"; theirs: Theirs<T>; way: Way<T> }
  | { do: "decide"; prefer: Prefer }
  | { do: "take"; theirs: Theirs<T> }
  | { do: "keep"; theirs: Theirs<T> };

const isConflict = (problem: Problem) => problem.type === "stale";

/** One's own way back and forth, from what is shown. */
interface Way<T> {
  past: T[];
  future: T[];
}

/** Goes on with the server's state, and with one's own way back and forth as it was moved onto it. */
function onto<T>(working: Working<T>, theirs: Theirs<T>, way: Way<T>): Working<T> {
  return {
    ...working,
    ...way,
    present: theirs.value,
    stored: theirs.value,
    version: theirs.version,
    problem: null,
    prefer: undefined,
  };
}

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
    case "stored": {
      const { sent, made, way } = action;
      if (made.value === undefined)
        return { ...working, stored: sent, version: made.version, problem: null, prefer: undefined };
      if (way && present === sent) return onto(working, { value: made.value, version: made.version }, way);
      // What was entered meanwhile began from what was sent: the server brings it together with what it has (version 0 names no
      // state, so that it always does).
      return { ...working, stored: sent, version: 0, problem: null, prefer: undefined };
    }
    case "failed": {
      // What was wrong with an older state says nothing of what is shown now; only a conflict stays one.
      const isOld = action.sent !== present && !isConflict(action.problem);
      return { ...working, problem: isOld ? null : action.problem, failures: working.failures + 1 };
    }
    case "retry":
      return { ...working, problem: null };
    case "adopt":
      // While something of one's own is on its way, that brings both together.
      return present === working.stored && action.theirs.version > working.version
        ? onto(working, action.theirs, action.way)
        : working;
    case "decide":
      return { ...working, problem: null, prefer: action.prefer };
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

/** Wait for the hand to pause before storing, in ms. */
const PAUSE = 350;
/** Ask again after nothing answered, in ms. */
const AGAIN = 3000;

interface Keep<T> {
  /** What it is kept under while it is not stored. */
  id: string;
  initial: T;
  version: number;
  /** What was kept of it before, not stored then. */
  draft: Draft<T> | null;
  /** Stores it. `base` is the state it was begun from. */
  store: (version: number, value: T, base: T, prefer: Prefer | undefined) => Promise<Made<T>>;
  /** What leads from one state to others, done to a third, where others may change it too. */
  rebase?: (from: T, to: T[], onto: T) => Promise<T[]>;
  /** Whether Ctrl Z belongs to it just now. */
  undoable?: boolean;
  /** How long to wait for the hand to pause, in ms. */
  pause?: number;
}

/** Keeps something: every change is stored at once, survives leaving the page, and can be undone. */
export function useKept<T>(keep: Keep<T>) {
  const { id, initial, version, draft, store, rebase, undoable = true, pause = PAUSE } = keep;
  const [working, dispatch] = useReducer(step<T>, null, (): Working<T> => ({
    past: [],
    present: draft?.value ?? initial,
    future: [],
    stored: draft?.base ?? initial,
    version: draft?.version ?? version,
    problem: null,
    prefer: undefined,
    failures: 0,
  }));
  const sending = useRef(false);
  const newest = useRef({ store, rebase, working });
  const { present, stored, problem, prefer } = working;
  const isStored = present === stored;

  useEffect(() => {
    newest.current = { store, rebase, working };
  }, [store, rebase, working]);

  /** One's own way back and forth, moved onto what arrived; nothing where `from` is shown no longer. */
  const moved = useCallback(async (from: T, to: T): Promise<Way<T> | null> => {
    for (;;) {
      const { past, future, present } = newest.current.working;
      if (present !== from) return null;
      const states = [...past, ...future];
      // Where the core cannot be asked there is no way back: what others entered is not undone by a guess.
      const all = states.length > 0 ? newest.current.rebase?.(from, states, to).catch(() => null) : [];
      const rebased = await all;
      const now = newest.current.working;
      if (now.past !== past || now.future !== future) continue;
      if (now.present !== from) return null;
      if (!rebased) return { past: [], future: [] };
      return { past: rebased.slice(0, past.length), future: rebased.slice(past.length) };
    }
  }, []);

  useEffect(() => {
    if (isStored) dropDraft(id);
    else keepDraft(id, { version: working.version, base: stored, value: present });
  }, [id, isStored, present, stored, working.version]);

  useEffect(() => {
    if (isStored || problem) return;
    const timer = setTimeout(() => {
      if (sending.current) return;
      sending.current = true;
      newest.current
        .store(working.version, present, stored, prefer)
        .then(
          async (made) => {
            const way = made.value === undefined ? null : await moved(present, made.value);
            dispatch({ do: "stored", sent: present, made, way });
          },
          (error: unknown) => {
            dispatch({ do: "failed", sent: present, problem: problemOf(error) });
          },
        )
        .finally(() => {
          sending.current = false;
        });
    }, pause);
    return () => {
      clearTimeout(timer);
    };
  }, [isStored, present, stored, problem, prefer, pause, working.version, working.failures, moved]);

  useEffect(() => {
    if (problem?.status !== 0 && problem?.status !== 503) return;
    const retry = () => {
      dispatch({ do: "retry" });
    };
    const timer = setTimeout(retry, AGAIN);
    addEventListener("online", retry);
    return () => {
      clearTimeout(timer);
      removeEventListener("online", retry);
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
    version: working.version,
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
    /** Goes on with a newer state of the server's, unless something of one's own is on its way. */
    adopt: useCallback(
      async (theirs: Theirs<T>) => {
        const { present, stored, version } = newest.current.working;
        if (present !== stored || theirs.version <= version) return;
        const way = await moved(present, theirs.value);
        if (way) dispatch({ do: "adopt", theirs, way });
      },
      [moved],
    ),
    /** Says whose entries are taken where two devices changed the same. */
    decide: useCallback((whose: Prefer) => {
      dispatch({ do: "decide", prefer: whose });
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

export type Kept<T> = ReturnType<typeof useKept<T>>;
