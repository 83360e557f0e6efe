import {
  createContext,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useState,
  type ReactNode,
} from "react";
import type { Tape } from "./api/client";
import { paint } from "./palette";

/** What a person sets once and keeps: their tape and whether it is dark. */
interface Settings {
  tape: Tape;
  setTape: (tape: Tape) => void;
  dark: boolean;
  setDark: (dark: boolean) => void;
}

const Context = createContext<Settings | null>(null);

const TAPES: readonly Tape[] = ["cm", "cm_halves", "in", "in_sixteenths"];

function remembered<T extends string>(key: string, allowed: readonly T[], otherwise: T): T {
  const found = localStorage.getItem(key);
  return allowed.find((value) => value === found) ?? otherwise;
}

export function SettingsProvider({ children }: { children: ReactNode }) {
  const [tape, setTape] = useState<Tape>(() => remembered("vemble.tape", TAPES, "cm"));
  const [dark, setDark] = useState(() => {
    const preferred = matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
    return remembered("vemble.light", ["light", "dark"], preferred) === "dark";
  });
  useEffect(() => {
    localStorage.setItem("vemble.tape", tape);
  }, [tape]);
  useEffect(() => {
    localStorage.setItem("vemble.light", dark ? "dark" : "light");
  }, [dark]);
  useLayoutEffect(() => {
    paint(dark);
  }, [dark]);
  const settings = useMemo(() => ({ tape, setTape, dark, setDark }), [tape, dark]);
  return <Context value={settings}>{children}</Context>;
}

export function useSettings(): Settings {
  const settings = useContext(Context);
  if (!settings) throw new Error("SettingsProvider is missing");
  return settings;
}
