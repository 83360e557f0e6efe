import { useMemo, useState } from "react";
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
  const { value, canUndo, canRedo, undo, redo, change } = kept;
  // The same as long as nothing changes: what shows it need not be painted again with every move of a hand.
  return useMemo(() => {
    const go = (step: number) => () => {
      setTried((now) => now && { ...now, at: Math.min(Math.max(now.at + step, 0), now.states.length - 1) });
    };
    const shown = tried?.states[tried.at];
    return {
      value: shown ?? value,
      isOn: tried !== null,
      canUndo: tried ? tried.at > 0 : canUndo,
      canRedo: tried ? tried.at < tried.states.length - 1 : canRedo,
      undo: tried ? go(-1) : undo,
      redo: tried ? go(1) : redo,
      change: (tryOn) => {
        if (!tried) change(tryOn);
        else setTried({ states: [...tried.states.slice(0, tried.at + 1), tryOn], at: tried.at + 1 });
      },
      begin: (from) => {
        setTried({ states: [from ?? value], at: 0 });
      },
      keep: () => {
        if (shown) change(shown);
        setTried(null);
      },
      drop: () => {
        setTried(null);
      },
    };
  }, [tried, value, canUndo, canRedo, undo, redo, change]);
}
