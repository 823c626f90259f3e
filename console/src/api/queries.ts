import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import {
  definition,
  entries,
  get,
  post,
  records,
  type BlockView,
  type CalendarView,
  type ClosingView,
  type CodebookView,
  type DayView,
  type ForecastView,
  type HoldView,
  type LabelJob,
  type LabelJobSummary,
  type DocumentPlan,
  type DocumentRequest,
  type LabelPreview,
  type LabelRequest,
  type Printer,
  type SimulatedPrinter,
  type LayoutDefinition,
  type LayoutView,
  type StarterView,
  type Statement,
  type VoidView,
  type Preview,
  type SchemeView,
  type SeriesForm,
  type SeriesView,
  type DoubtView,
  type RollbackView,
  type StatusView,
  type AccountView,
  type GridView,
  type RouteView,
  type TokenView,
  type KindView,
  type UnitView,
  type RecordDetail,
  type RecordPreview,
  type RecordRequest,
  type RecordVersion,
} from "./client.ts";

/** @param retired whether those that are out of use are shown as well */
export const useSeriesList = (retired = false) =>
  useQuery({
    queryKey: retired ? ["series", "retired"] : ["series"],
    queryFn: () => get<SeriesView[]>(retired ? "/series?retired=true" : "/series"),
  });

/** Those that can be chosen: what is retired is known by its title, and is not offered. */
export const inUse = <T extends { retired: boolean }>(all: T[] | undefined): T[] =>
  all?.filter((each) => !each.retired) ?? [];

/** One series; with what a record gives for its fields, also what comes next for them. */
export const useSeries = (key: string, date: string, fields: Record<string, string> = {}, enabled = true) =>
  useQuery({
    queryKey: ["series", key, date, fields],
    queryFn: () =>
      get<SeriesView>(
        `/series/${encodeURIComponent(key)}?${new URLSearchParams([...(date ? [["date", date]] : []), ...Object.entries(fields).map(([name, value]) => ["field", `${name}=${value}`])])}`,
      ),
    placeholderData: keepPreviousData,
    enabled,
  });

export const useCodebooks = () =>
  useQuery({ queryKey: ["codebooks"], queryFn: () => get<CodebookView[]>("/codebooks") });

/** For the editor: read once, so that what is typed is not overwritten. */
export const useDefinition = (key: string) =>
  useQuery({ queryKey: ["definition", key], queryFn: () => definition(key), staleTime: 0, gcTime: 0 });

export const useHolds = () => useQuery({ queryKey: ["life", "holds"], queryFn: () => get<HoldView[]>("/holds") });

export const useBlocks = () => useQuery({ queryKey: ["life", "blocks"], queryFn: () => get<BlockView[]>("/blocks") });

export const useVoids = () => useQuery({ queryKey: ["life", "voids"], queryFn: () => get<VoidView[]>("/voids") });

export const useDoubts = () => useQuery({ queryKey: ["life", "doubts"], queryFn: () => get<DoubtView[]>("/doubts") });

export const useRollback = () => useQuery({ queryKey: ["rollback"], queryFn: () => get<RollbackView>("/rollback") });

export const useForecast = (key: string) =>
  useQuery({
    queryKey: ["series", key, "forecast"],
    queryFn: () => get<ForecastView>(`/series/${encodeURIComponent(key)}/forecast`),
  });

export const useUse = (key: string, days: number) =>
  useQuery({
    queryKey: ["series", key, "use", days],
    queryFn: () => get<DayView[]>(`/series/${encodeURIComponent(key)}/use?days=${days}`),
  });

export const useCalendar = () =>
  useQuery({ queryKey: ["series", "calendar"], queryFn: () => get<CalendarView[]>("/calendar") });

export const useClosings = () =>
  useQuery({ queryKey: ["life", "closings"], queryFn: () => get<ClosingView[]>("/closings") });

export const useClosing = (closing: string) =>
  useQuery({ queryKey: ["life", "closings", closing], queryFn: () => get<Statement>(`/closings/${closing}`) });

export const useStarters = () =>
  useQuery({ queryKey: ["starters"], queryFn: () => get<StarterView[]>("/starters"), staleTime: Infinity });

export const useCheckSchemes = () =>
  useQuery({ queryKey: ["check-schemes"], queryFn: () => get<SchemeView[]>("/check-schemes"), staleTime: Infinity });

export const useLayouts = () => useQuery({ queryKey: ["layouts"], queryFn: () => get<LayoutView[]>("/layouts") });

/** For the editor: read once, so that what is typed is not overwritten. */
export const useLayout = (key: string, enabled: boolean) =>
  useQuery({
    queryKey: ["layout", key],
    queryFn: () => get<LayoutDefinition>(`/layouts/${encodeURIComponent(key)}`),
    enabled,
    staleTime: Infinity,
    gcTime: 0,
  });

/** How often a printer is asked how far it is. */
const PRINTER_MILLIS = 1_000;

export const useLabelJobs = () =>
  useQuery({ queryKey: ["label-jobs"], queryFn: () => get<LabelJobSummary[]>("/label-jobs?most=20") });

export const useLabelJob = (job: string) =>
  useQuery({
    queryKey: ["label-jobs", job],
    queryFn: () => get<LabelJob>(`/label-jobs/${encodeURIComponent(job)}`),
    // A printer is heard by asking.
    refetchInterval: (query) =>
      ["queued", "printing", "stopped"].includes(query.state.data?.printing?.state ?? "") ? PRINTER_MILLIS : false,
  });

/** The printers that labels may be sent to, as they are now. */
export const usePrinters = () =>
  useQuery({ queryKey: ["printers"], queryFn: () => get<Printer[]>("/printers"), staleTime: 10_000 });

export const useSimulatedPrinter = () =>
  useQuery({
    queryKey: ["simulated-printer"],
    queryFn: () => get<SimulatedPrinter>("/simulated-printer"),
    refetchInterval: PRINTER_MILLIS,
  });

/** How many labels are shown at a time. */
export const LABELS_SHOWN = 12;

/** Labels with the numbers that are expected; nothing is asked for before there is enough to ask. */
export const useLabelPreview = (request: LabelRequest | undefined, from: number) =>
  useQuery({
    queryKey: ["label-preview", request, from],
    queryFn: ({ signal }) =>
      post<LabelPreview>(`/label-previews?from=${from}&most=${LABELS_SHOWN}`, request, undefined, signal),
    placeholderData: keepPreviousData,
    staleTime: 0,
    enabled: request !== undefined,
  });

/**
 * What a rule comes to in a document; nothing is asked for before there is one.
 * @param asked chosen tells one choice of files from another: the files themselves are too large to be a part of a key
 */
export const useDocumentPlan = (asked: { request: DocumentRequest; chosen: number } | undefined) =>
  useQuery({
    queryKey: ["document-plan", asked?.chosen, asked?.request.rule, asked?.request.places],
    queryFn: ({ signal }) => post<DocumentPlan>("/document-plans", asked?.request, undefined, signal),
    placeholderData: keepPreviousData,
    staleTime: 0,
    gcTime: 0,
    enabled: asked !== undefined,
  });

export const useAccounts = () => useQuery({ queryKey: ["accounts"], queryFn: () => get<AccountView[]>("/accounts") });

export const useAccount = (name: string) =>
  useQuery({ queryKey: ["accounts", name], queryFn: () => get<AccountView>(`/accounts/${encodeURIComponent(name)}`) });

export const useTokens = (name: string) =>
  useQuery({
    queryKey: ["accounts", name, "tokens"],
    queryFn: () => get<TokenView[]>(`/accounts/${encodeURIComponent(name)}/tokens`),
  });

export const useRouteGrid = () =>
  useQuery({ queryKey: ["routes", "grid"], queryFn: () => get<GridView>("/route-grid") });

export const useKinds = () =>
  useQuery({ queryKey: ["routes", "kinds"], queryFn: () => get<KindView[]>("/kinds?retired=true") });

export const useUnits = () =>
  useQuery({ queryKey: ["routes", "units"], queryFn: () => get<UnitView[]>("/units?retired=true") });

/** Records by what is looked for, page by page. */
export const useRecords = (
  wanted: { text?: string; kind?: string; unit?: string; deleted?: boolean },
  limit: number,
  enabled = true,
) =>
  useInfiniteQuery({
    queryKey: ["records", "found", wanted, limit],
    queryFn: ({ pageParam }) =>
      records({
        text: wanted.text ?? "",
        kind: wanted.kind ?? "",
        unit: wanted.unit ?? "",
        deleted: wanted.deleted ? "true" : "",
        before: pageParam ? String(pageParam) : "",
        limit: String(limit),
      }),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.older ? page.records.at(-1)?.record : undefined),
    placeholderData: keepPreviousData,
    enabled,
  });

export const useRecord = (record: string) =>
  useQuery({ queryKey: ["records", record], queryFn: () => get<RecordDetail>(`/records/${record}`) });

export const useVersions = (record: string) =>
  useQuery({
    queryKey: ["records", record, "versions"],
    queryFn: () => get<RecordVersion[]>(`/records/${record}/versions`),
  });

/** What a record that is being written would come to; the service says so, never the page. */
export const useRecordPreview = (request: RecordRequest, enabled: boolean) =>
  useQuery({
    queryKey: ["records", "preview", request],
    queryFn: ({ signal }) => post<RecordPreview>("/record-previews", request, undefined, signal),
    placeholderData: keepPreviousData,
    staleTime: 0,
    enabled,
  });

/** The routes that lead to a series. */
export const useUses = (key: string) =>
  useQuery({
    queryKey: ["routes", "uses", key],
    queryFn: () => get<RouteView[]>(`/series/${encodeURIComponent(key)}/routes`),
  });

export const useStatus = () =>
  useQuery({ queryKey: ["status"], queryFn: () => get<StatusView>("/status"), refetchInterval: 15_000 });

export const useEntries = (series: string | undefined, limit: number) =>
  useInfiniteQuery({
    queryKey: ["entries", series ?? "", limit],
    queryFn: ({ pageParam }) => entries(series, pageParam, limit),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.older ? page.entries.at(-1)?.seq : undefined),
  });

/** What a definition would give; the service says so, never the page. */
export const usePreview = (form: SeriesForm, date: string, fields: Record<string, string>) =>
  useQuery({
    queryKey: ["preview", form, date, fields],
    queryFn: ({ signal }) =>
      post<Preview>("/previews", { series: form, fields, ...(date ? { date } : {}) }, undefined, signal),
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
