import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

/** Refreshes what is shown whenever the ledger has new entries. Returns whether the service is being heard. */
export function useLive(): boolean {
  const queries = useQueryClient();
  const [heard, setHeard] = useState(true);
  useEffect(() => {
    const events = new EventSource("/api/v1/events");
    events.addEventListener("change", () => {
      void queries.invalidateQueries({ queryKey: ["series"] });
      void queries.invalidateQueries({ queryKey: ["entries"] });
    });
    events.onopen = () => {
      setHeard(true);
      void queries.invalidateQueries();
    };
    events.onerror = () => setHeard(false);
    return () => events.close();
  }, [queries]);
  return heard;
}
