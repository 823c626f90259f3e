import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { definition, entries, get, post, type BlockView, type CalendarView, type ClosingView, type CodebookView, type DayView, type ForecastView, type HoldView, type StarterView, type Statement, type VoidView, type Preview, type SchemeView, type SeriesForm, type SeriesView, type StatusView, type AccountView, type GridView, type RouteView, type TokenView } from "./client.ts";

export const useSeriesList = () => useQuery({ queryKey: ["series"], queryFn: () => get<SeriesView[]>("/series") });

/** One series; with what a record gives for its fields, also what comes next for them. */
export const useSeries = (key: string, date: string, fields: Record<string, string> = {}, enabled = true) =>
  useQuery({
    queryKey: ["series", key, date, fields],
    queryFn: () => get<SeriesView>(`/series/${encodeURIComponent(key)}?${new URLSearchParams([...(date ? [["date", date]] : []), ...Object.entries(fields).map(([name, value]) => ["field", `${name}=${value}`])])}`),
    placeholderData: keepPreviousData,
    enabled,
  });

export const useCodebooks = () => useQuery({ queryKey: ["codebooks"], queryFn: () => get<CodebookView[]>("/codebooks") });

/** For the editor: read once, so that what is typed is not overwritten. */
export const useDefinition = (key: string) => useQuery({ queryKey: ["definition", key], queryFn: () => definition(key), staleTime: 0, gcTime: 0 });

export const useHolds = () => useQuery({ queryKey: ["life", "holds"], queryFn: () => get<HoldView[]>("/holds") });

export const useBlocks = () => useQuery({ queryKey: ["life", "blocks"], queryFn: () => get<BlockView[]>("/blocks") });

export const useVoids = () => useQuery({ queryKey: ["life", "voids"], queryFn: () => get<VoidView[]>("/voids") });

export const useForecast = (key: string) => useQuery({ queryKey: ["series", key, "forecast"], queryFn: () => get<ForecastView>(`/series/${encodeURIComponent(key)}/forecast`) });

export const useUse = (key: string, days: number) => useQuery({ queryKey: ["series", key, "use", days], queryFn: () => get<DayView[]>(`/series/${encodeURIComponent(key)}/use?days=${days}`) });

export const useCalendar = () => useQuery({ queryKey: ["series", "calendar"], queryFn: () => get<CalendarView[]>("/calendar") });

export const useClosings = () => useQuery({ queryKey: ["life", "closings"], queryFn: () => get<ClosingView[]>("/closings") });

export const useClosing = (closing: string) => useQuery({ queryKey: ["life", "closings", closing], queryFn: () => get<Statement>(`/closings/${closing}`) });

export const useStarters = () => useQuery({ queryKey: ["starters"], queryFn: () => get<StarterView[]>("/starters"), staleTime: Infinity });

export const useCheckSchemes = () => useQuery({ queryKey: ["check-schemes"], queryFn: () => get<SchemeView[]>("/check-schemes"), staleTime: Infinity });

export const useAccounts = () => useQuery({ queryKey: ["accounts"], queryFn: () => get<AccountView[]>("/accounts") });

export const useAccount = (name: string) => useQuery({ queryKey: ["accounts", name], queryFn: () => get<AccountView>(`/accounts/${encodeURIComponent(name)}`) });

export const useTokens = (name: string) => useQuery({ queryKey: ["accounts", name, "tokens"], queryFn: () => get<TokenView[]>(`/accounts/${encodeURIComponent(name)}/tokens`) });

export const useRouteGrid = () => useQuery({ queryKey: ["routes", "grid"], queryFn: () => get<GridView>("/route-grid") });

/** The routes that lead to a series. */
export const useUses = (key: string) => useQuery({ queryKey: ["routes", "uses", key], queryFn: () => get<RouteView[]>(`/series/${encodeURIComponent(key)}/routes`) });

export const useStatus = () => useQuery({ queryKey: ["status"], queryFn: () => get<StatusView>("/status"), refetchInterval: 15_000 });

export const useEntries = (series: string | undefined, limit: number) =>
  useInfiniteQuery({
    queryKey: ["entries", series ?? "", limit],
    queryFn: ({ pageParam }) => entries(series, pageParam, limit),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.older ? page.entries.at(-1)?.seq : undefined),
  });

/** What a definition would give; the service says so, never the page. */
export const usePreview = (form: SeriesForm, date: string, fields: Record<string, string>) =>
  useQuery({ queryKey: ["preview", form, date, fields], queryFn: ({ signal }) => post<Preview>("/previews", { series: form, fields, ...(date ? { date } : {}) }, undefined, signal), placeholderData: keepPreviousData, staleTime: 0 });
