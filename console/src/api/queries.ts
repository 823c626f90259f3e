import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { definition, entries, get, post, type Preview, type SchemeView, type SeriesForm, type SeriesView, type StatusView } from "./client.ts";

export const useSeriesList = () => useQuery({ queryKey: ["series"], queryFn: () => get<SeriesView[]>("/series") });

export const useSeries = (key: string, date: string) =>
  useQuery({ queryKey: ["series", key, date], queryFn: () => get<SeriesView>(`/series/${encodeURIComponent(key)}${date ? `?date=${date}` : ""}`), placeholderData: keepPreviousData });

/** For the editor: read once, so that what is typed is not overwritten. */
export const useDefinition = (key: string) => useQuery({ queryKey: ["definition", key], queryFn: () => definition(key), staleTime: 0, gcTime: 0 });

export const useCheckSchemes = () => useQuery({ queryKey: ["check-schemes"], queryFn: () => get<SchemeView[]>("/check-schemes"), staleTime: Infinity });

export const useStatus = () => useQuery({ queryKey: ["status"], queryFn: () => get<StatusView>("/status"), refetchInterval: 15_000 });

export const useEntries = (series: string | undefined, limit: number) =>
  useInfiniteQuery({
    queryKey: ["entries", series ?? "", limit],
    queryFn: ({ pageParam }) => entries(series, pageParam, limit),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.older ? page.entries.at(-1)?.seq : undefined),
  });

/** What a definition would give; the service says so, never the page. */
export const usePreview = (form: SeriesForm, date: string) =>
  useQuery({ queryKey: ["preview", form, date], queryFn: ({ signal }) => post<Preview>("/previews", { series: form, ...(date ? { date } : {}) }, undefined, signal), placeholderData: keepPreviousData, staleTime: 0 });
