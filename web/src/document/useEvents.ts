import { useEffect, useRef } from "react";
import type { LiveEvent } from "../api/client";

/** Hears what happens, as it happens, for as long as it is shown. The browser connects again by itself. */
export function useEvents(url: string | null, onEvent: (event: LiveEvent) => void): void {
  const newest = useRef(onEvent);
  useEffect(() => {
    newest.current = onEvent;
  }, [onEvent]);
  useEffect(() => {
    if (!url) return;
    const source = new EventSource(url);
    source.onmessage = (message: MessageEvent<string>) => {
      newest.current(JSON.parse(message.data) as LiveEvent);
    };
    return () => {
      source.close();
    };
  }, [url]);
}
