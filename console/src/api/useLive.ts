import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

const PAUSE_MILLIS = 2_000;

/**
 * Refreshes what is shown whenever the ledger has new entries, and says whether the service is being heard. Only a page that can
 * be seen listens, and only for one who may read: a browser keeps six connections to a service at the most, over all its tabs.
 */
export function useLive(may: boolean): boolean {
  const queries = useQueryClient();
  const [heard, setHeard] = useState(true);
  useEffect(() => {
    let events: EventSource | undefined;
    let again: ReturnType<typeof setTimeout> | undefined;
    const stop = () => {
      clearTimeout(again);
      events?.close();
      events = undefined;
    };
    const listen = () => {
      if (!may || events || document.visibilityState !== "visible") return;
      events = new EventSource("/api/v1/events");
      events.addEventListener("change", () => {
        void queries.invalidateQueries({ queryKey: ["series"] });
        void queries.invalidateQueries({ queryKey: ["entries"] });
        void queries.invalidateQueries({ queryKey: ["life"] });
        void queries.invalidateQueries({ queryKey: ["routes"] });
        void queries.invalidateQueries({ queryKey: ["records"] });
        void queries.invalidateQueries({ queryKey: ["accounts"] });
      });
      events.onopen = () => {
        setHeard(true);
        void queries.invalidateQueries();
      };
      events.onerror = () => {
        setHeard(false);
        // After an answer that is no stream, such as a refusal, a browser does not try again by itself.
        if (events?.readyState !== EventSource.CLOSED) return;
        events = undefined;
        again = setTimeout(listen, PAUSE_MILLIS);
      };
    };
    const turn = () => (document.visibilityState === "visible" ? listen() : stop());
    listen();
    document.addEventListener("visibilitychange", turn);
    addEventListener("pagehide", stop);
    addEventListener("pageshow", listen);
    return () => {
      stop();
      document.removeEventListener("visibilitychange", turn);
      removeEventListener("pagehide", stop);
      removeEventListener("pageshow", listen);
    };
  }, [queries, may]);
  return heard;
}
