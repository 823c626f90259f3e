import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { post, Problem } from "./client.ts";

/**
 * Does an act once: pressing again after an outcome that is not known repeats the same request, instead of doing it a second time.
 * What the pages show is read anew afterwards.
 */
export function useAct<T>(done?: (answer: T) => void) {
  const queries = useQueryClient();
  const pending = useRef<{ asked: string; key: string } | undefined>(undefined);
  return useMutation({
    mutationFn: ({ path, body }: { path: string; body: unknown }) => {
      const asked = JSON.stringify([path, body]);
      if (pending.current?.asked !== asked) pending.current = { asked, key: crypto.randomUUID() };
      return post<T>(path, body, pending.current.key);
    },
    onSuccess: (answer) => {
      pending.current = undefined;
      done?.(answer);
    },
    onError: (error) => {
      if (!(error instanceof Problem) || (error.status !== 0 && error.status < 500)) pending.current = undefined;
    },
    onSettled: () => void queries.invalidateQueries(),
  });
}
