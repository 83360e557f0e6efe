import { useCallback, useState } from "react";
import type { TryOn } from "../api/client";

interface Tried {
  states: TryOn[];
  at: number;
}

interface Keeping {
  value: TryOn;
  canUndo: boolean;
  canRedo: boolean;
  undo: () => void;
  redo: () => void;
  change: (tryOn: TryOn) => void;
}

/** What is tried out without touching the record: as long as it is on, changes go here, with a way back and forth of their own. */
export interface WhatIf extends Keeping {
  isOn: boolean;
  /** Begins to try things out, from what is kept or from a state. */
  begin: (from?: TryOn) => void;
  /** Stores what was tried out, as one change. */
  keep: () => void;
  /** Goes back to what is kept. */
  drop: () => void;
}

export function useWhatIf(kept: Keeping): WhatIf {
  const [tried, setTried] = useState<Tried | null>(null);
  const keptChange = kept.change;
  const change = useCallback(
    (tryOn: TryOn) => {
      if (!tried) keptChange(tryOn);
      else setTried({ states: [...tried.states.slice(0, tried.at + 1), tryOn], at: tried.at + 1 });
    },
    [tried, keptChange],
  );
  const go = (step: number) => () => {
    setTried((now) => now && { ...now, at: Math.min(Math.max(now.at + step, 0), now.states.length - 1) });
  };
  const shown = tried?.states[tried.at];
  return {
    value: shown ?? kept.value,
    isOn: tried !== null,
    canUndo: tried ? tried.at > 0 : kept.canUndo,
    canRedo: tried ? tried.at < tried.states.length - 1 : kept.canRedo,
    undo: tried ? go(-1) : kept.undo,
    redo: tried ? go(1) : kept.redo,
    change,
    begin: (from) => {
      setTried({ states: [from ?? kept.value], at: 0 });
    },
    keep: () => {
      if (shown) kept.change(shown);
      setTried(null);
    },
    drop: () => {
      setTried(null);
    },
  };
}
