import { useEffect, useRef } from "react";
import type { LiveEvent } from "../api/client";

/**
 * Hears what happens, as it happens, for as long as it is shown. The browser connects again by itself, and is told then to look again.
 *
 * A page that nobody sees lets go of its connection: a browser has six of them for one server, whatever it has open.
 */
export function useEvents(url: string | null, onEvent: (event: LiveEvent) => void): void {
  const newest = useRef(onEvent);
  useEffect(() => {
    newest.current = onEvent;
  }, [onEvent]);
  useEffect(() => {
    if (!url) return;
    let source: EventSource | null = null;
    const hearWhileSeen = () => {
      source?.close();
      source = document.hidden ? null : new EventSource(url);
      if (!source) return;
      source.onmessage = (message: MessageEvent<string>) => {
        newest.current(JSON.parse(message.data) as LiveEvent);
      };
    };
    hearWhileSeen();
    document.addEventListener("visibilitychange", hearWhileSeen);
    // What could not connect without a network does not try again by itself.
    window.addEventListener("online", hearWhileSeen);
    return () => {
      document.removeEventListener("visibilitychange", hearWhileSeen);
      window.removeEventListener("online", hearWhileSeen);
      source?.close();
    };
  }, [url]);
}
