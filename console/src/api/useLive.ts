import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

/**
 * Refreshes what is shown whenever the ledger has new entries, and says whether the service is being heard. Only a page that can
 * be seen listens: a browser keeps six connections to a service at the most, over all its tabs.
 */
export function useLive(): boolean {
  const queries = useQueryClient();
  const [heard, setHeard] = useState(true);
  useEffect(() => {
    let events: EventSource | undefined;
    const stop = () => {
      events?.close();
      events = undefined;
    };
    const listen = () => {
      if (events || document.visibilityState !== "visible") return;
      events = new EventSource("/api/v1/events");
      events.addEventListener("change", () => {
        void queries.invalidateQueries({ queryKey: ["series"] });
        void queries.invalidateQueries({ queryKey: ["entries"] });
        void queries.invalidateQueries({ queryKey: ["life"] });
        void queries.invalidateQueries({ queryKey: ["routes"] });
        void queries.invalidateQueries({ queryKey: ["accounts"] });
      });
      events.onopen = () => {
        setHeard(true);
        void queries.invalidateQueries();
      };
      events.onerror = () => setHeard(false);
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
  }, [queries]);
  return heard;
}
