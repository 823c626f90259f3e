import { keepReceipt, shownReceipts } from "./receipts.ts";
import type { components } from "./types.ts";

type Schemas = components["schemas"];
export type SeriesView = Schemas["SeriesView"];
export type RangeView = Schemas["RangeView"];
export type SeriesForm = Schemas["SeriesForm"];
export type RangeForm = Schemas["RangeForm"];
export type EntryView = Schemas["EntryView"];
export type Allocation = Schemas["Allocation"];
export type Preview = Schemas["Preview"];
export type Fault = Schemas["DefinitionFault"];
export type FieldForm = Schemas["FieldForm"];
export type FieldView = Schemas["FieldView"];
export type CodebookView = Schemas["CodebookView"];
export type CodebookForm = Schemas["CodebookForm"];
export type Choice = Schemas["ChoiceForm"];
export type SchemeView = Schemas["SchemeView"];
export type CheckResult = Schemas["CheckResult"];
export type CheckAddition = Schemas["CheckAddition"];
export type StatusView = Schemas["StatusView"];
export type Settlement = Schemas["Settlement"];
export type HoldView = Schemas["HoldView"];
export type BlockView = Schemas["BlockView"];
export type VoidView = Schemas["VoidView"];
export type DoubtView = Schemas["DoubtView"];
export type RollbackView = Schemas["RollbackView"];
export type SeriesStatement = Schemas["SeriesStatement"];
export type HighestStatement = Schemas["HighestStatement"];
export type ForecastView = Schemas["ForecastView"];
export type DayView = Schemas["DayView"];
export type CalendarView = Schemas["CalendarView"];
export type ClosingView = Schemas["ClosingView"];
export type StarterView = Schemas["StarterView"];
export type Applied = Schemas["DefinitionReport"];
export type Statement = Schemas["Statement"];
export type SessionView = Schemas["SessionView"];
export type AccountView = Schemas["AccountView"];
export type OpenedView = Schemas["OpenedView"];
export type GrantView = Schemas["GrantView"];
export type TokenView = Schemas["TokenView"];
export type IssuedToken = Schemas["IssuedToken"];
export type GridView = Schemas["GridView"];
export type CellView = Schemas["CellView"];
export type KindView = Schemas["KindView"];
export type UnitView = Schemas["UnitView"];
export type RecordView = Schemas["RecordView"];
export type RecordDetail = Schemas["RecordDetail"];
export type RecordAnswer = Schemas["RecordAnswer"];
export type RecordPreview = Schemas["RecordPreview"];
export type RecordVersion = Schemas["RecordVersion"];
export type RecordRequest = Schemas["SavingRequest"];
export type RouteView = Schemas["RouteView"];
export type RouteForm = Schemas["RouteForm"];
export type Inspection = Schemas["InspectionView"];
export type ColumnFindings = Schemas["ColumnFindings"];
export type TableLane = Schemas["TableLaneView"];
export type TableColumn = Schemas["TableColumnView"];
export type TextFault = Schemas["TextFaultView"];
export type LayoutView = Schemas["LayoutView"];
export type LayoutDefinition = Schemas["LayoutDefinition"];
export type LabelRequest = Schemas["LabelRequest"];
export type LabelPreview = Schemas["LabelPreview"];
export type LabelJob = Schemas["LabelJobView"];
export type LabelTable = Schemas["LabelTableView"];
export type Printer = Schemas["PrinterView"];
export type SimulatedPrinter = Schemas["SimulatedPrinterView"];
export type LabelJobSummary = Schemas["LabelJobSummary"];
export type LabelStretch = Schemas["LabelStretchView"];
export type DocumentFile = Schemas["DocumentFile"];
export type DocumentRequest = Schemas["DocumentRequest"];
export type DocumentPlan = Schemas["DocumentPlanView"];
export type DocumentChange = Schemas["DocumentChangeView"];
export type DocumentItem = Schemas["DocumentItemView"];
export type DocumentLine = Schemas["DocumentLine"];
export type DocumentSheet = Schemas["DocumentSheetView"];
export type NumberedDocument = Schemas["NumberedDocument"];
export type Scan = Schemas["Scan"];
export type IdentifierView = Schemas["IdentifierView"];

/** A refusal: problem details by RFC 9457. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly type: string,
    detail: string,
    readonly field?: string,
    readonly accepted?: string,
    readonly faults: Fault[] = [],
  ) {
    super(detail);
  }
}

async function answer<T>(response: Response): Promise<T> {
  if (response.status === 204) return undefined as T;
  if (response.ok) return (await response.json()) as T;
  const problem = await (response.json() as Promise<Partial<Schemas["Problem"]> & { faults?: Fault[] }>).catch(
    // Whoever is in front of the service may answer in other words.
    () => undefined,
  );
  // What was asked before the last sign-in says nothing of the session that it began.
  if (problem?.type === "/problems/sign-in-needed" && (askedUnder.get(response) ?? secret) === secret) signedOut();
  throw new Problem(
    response.status,
    problem?.type ?? "",
    problem?.detail ?? `The service answered ${response.status}.`,
    problem?.field,
    problem?.accepted,
    problem?.faults,
  );
}

async function call(path: string, init?: RequestInit): Promise<Response> {
  const under = secret;
  try {
    const shown = shownReceipts();
    const response = await fetch(
      `/api/v1${path}`,
      shown ? { ...init, headers: { ...(init?.headers as Record<string, string>), "Ledger-Receipt": shown } } : init,
    );
    keepReceipt(response.headers.get("Ledger-Receipt"));
    askedUnder.set(response, under);
    return response;
  } catch {
    throw new Problem(
      0,
      "unreachable",
      `The service does not answer.${init?.method ? " What was sent may or may not have been done." : ""}`,
      undefined,
      "Try again once the service runs.",
    );
  }
}

/** The session's secret, which what changes something shows: no page from elsewhere can know it. */
let secret = "";
let signedOut = () => {};
/** The secret that there was when something was asked. */
const askedUnder = new WeakMap<Response, string>();

export const showSecret = (known: string | undefined) => {
  secret = known ?? "";
};

/** Says what is to be done once the service does not know any more who asks. */
export const onSignedOut = (act: () => void) => {
  signedOut = act;
};

const headers = () => ({ "Content-Type": "application/json", "X-CSRF-TOKEN": secret });

export const get = async <T>(path: string): Promise<T> => answer<T>(await call(path));

export const post = async <T>(path: string, body: unknown, key?: string, signal?: AbortSignal): Promise<T> =>
  answer<T>(
    await call(path, {
      method: "POST",
      signal,
      headers: key ? { ...headers(), "Idempotency-Key": key } : headers(),
      body: JSON.stringify(body),
    }),
  );

/** A definition, and the version that a change of it is made on. */
export async function definition(key: string): Promise<{ form: SeriesForm; version: number }> {
  const response = await call(`/series/${encodeURIComponent(key)}/definition`);
  return {
    form: await answer<SeriesForm>(response),
    version: Number((response.headers.get("ETag") ?? "").replace(/\D/g, "")),
  };
}

/** Puts something new, or a change of the version that was looked at. */
export const put = async <T>(path: string, body: unknown, version?: number): Promise<T> =>
  answer<T>(
    await call(path, {
      method: "PUT",
      headers: { ...headers(), ...(version === undefined ? { "If-None-Match": "*" } : { "If-Match": `"${version}"` }) },
      body: JSON.stringify(body),
    }),
  );

/** Takes something away. @param version that was looked at */
export const remove = async (path: string, version?: number): Promise<void> =>
  answer<void>(
    await call(path, {
      method: "DELETE",
      headers: version === undefined ? headers() : { ...headers(), "If-Match": `"${version}"` },
    }),
  );

/** Sends a file as it is. @param type of what it holds @return what came back, with what was said about it */
export async function sendFile(path: string, file: File, type: string, key: string): Promise<Response> {
  const bytes = await file.arrayBuffer().catch(() => {
    throw new Problem(
      0,
      "file-changed",
      `${file.name} has changed since it was chosen. Nothing was sent.`,
      undefined,
      "Choose it again.",
    );
  });
  const response = await call(path, {
    method: "POST",
    headers: { "Content-Type": type, "X-CSRF-TOKEN": secret, "Idempotency-Key": key },
    body: bytes,
  });
  if (!response.ok) await answer(response);
  return response;
}

/** Hands out the labels of a job that wait, as a PDF. @param key by which the same ones are handed out again */
export async function sendLabels(job: number, key: string): Promise<Blob> {
  const response = await call(`/label-jobs/${job}/outputs`, {
    method: "POST",
    headers: { ...headers(), Accept: "*/*", "Idempotency-Key": key },
  });
  if (!response.ok) await answer(response);
  return response.blob();
}

/** Looks through a table, which is sent as it is read: it may be larger than the memory of the page. */
export async function inspectTable(file: File, query: Record<string, string>): Promise<Inspection> {
  const named = Object.entries({ name: file.name, ...query }).filter(([, value]) => value !== "");
  return answer<Inspection>(
    await call(`/table-inspections?${new URLSearchParams(named)}`, {
      method: "POST",
      headers: { "Content-Type": "application/octet-stream", "X-CSRF-TOKEN": secret },
      body: file,
    }),
  );
}

/** A plan for the numbers of a table: what it says of itself, and its changes. */
export interface TablePlan {
  series: string;
  standing: string;
  column: string;
  rows: number;
  kept: number;
  correct: number;
  known: number;
  allocate: number;
  renumber: number;
  leave: number;
  "pre-existing": number;
  "open-gaps": number;
  gaps: "keep" | "close";
  notes?: string[];
  changes: PlanChange[];
}

export interface PlanChange {
  line: number;
  was: string;
  change: "allocate" | "renumber" | "correct" | "known" | "leave";
  to?: string;
  expected?: string;
  why?: string;
  "same-as-line"?: number;
}

const posted = async (path: string, query: URLSearchParams, file: File): Promise<Response> => {
  const response = await call(`${path}?${query}`, {
    method: "POST",
    headers: { "Content-Type": "application/octet-stream", "X-CSRF-TOKEN": secret },
    body: file,
  });
  if (!response.ok) await answer(response);
  return response;
};

/** How a table is repaired, as the parameters of a request. */
const repairQuery = (file: File, query: Record<string, string>, chosen: number[]): URLSearchParams => {
  const named = Object.entries({ name: file.name, ...query }).filter(([, value]) => value !== "");
  return new URLSearchParams([...named, ...chosen.map((line) => ["chosen", String(line)])]);
};

/** Plans the repair of a table. @return the plan, its file, and the digest that names it */
export async function planTable(
  series: string,
  file: File,
  query: Record<string, string>,
  chosen: number[],
): Promise<{ plan: TablePlan; file: Blob; digest: string }> {
  const response = await posted(
    `/series/${encodeURIComponent(series)}/table-plans`,
    repairQuery(file, query, chosen),
    file,
  );
  const blob = await response.blob();
  return {
    plan: JSON.parse(await blob.text()) as TablePlan,
    file: blob,
    digest: response.headers.get("Plan-Digest") ?? "",
  };
}

/** Carries out a plan. @return the repaired table, and the entry that began the plan */
export async function repairTable(
  series: string,
  file: File,
  query: Record<string, string>,
  chosen: number[],
): Promise<{ file: Blob; plan: number }> {
  const response = await posted(
    `/series/${encodeURIComponent(series)}/table-repairs`,
    repairQuery(file, query, chosen),
    file,
  );
  return { file: await response.blob(), plan: Number(response.headers.get("Plan")) };
}

/** Defines a series: a new one, or a change of the version that was looked at. */
export const define = (form: SeriesForm, version?: number): Promise<SeriesForm> =>
  put(`/series/${encodeURIComponent(form.key ?? "")}/definition`, form, version);

/** Defines a codebook: a new one, or a change of the version that was looked at. */
export const defineCodebook = (form: CodebookForm, version?: number): Promise<CodebookForm> =>
  put(`/codebooks/${encodeURIComponent(form.key ?? "")}`, form, version);

/** A page of records, and whether there are older ones. */
export async function records(query: Record<string, string>): Promise<{ records: RecordView[]; older: boolean }> {
  const response = await call(
    `/records?${new URLSearchParams(Object.entries(query).filter(([, value]) => value !== ""))}`,
  );
  return { records: await answer<RecordView[]>(response), older: response.headers.has("Link") };
}

/** A page of entries, and where the next one begins. */
export async function entries(
  series: string | undefined,
  before: number | undefined,
  limit: number,
): Promise<{ entries: EntryView[]; older: boolean }> {
  const query = new URLSearchParams({ limit: String(limit) });
  if (series) query.set("series", series);
  if (before) query.set("before", String(before));
  const response = await call(`/entries?${query}`);
  return { entries: await answer<EntryView[]>(response), older: response.headers.has("Link") };
}
