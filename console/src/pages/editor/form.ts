import type { Fault, SeriesForm, SeriesView } from "../../api/client.ts";

/** What stands in the fields, as text, so that whatever is typed can be shown to the service and back. */
export type Draft = { key: string; title: string; namespace: string; pattern: string; restarts: string; ranges: RangeDraft[] };
export type RangeDraft = { id: number; first: string; last: string; step: string; opens: string; closes: string; warnWhenLeft: string };

let lastId = 0;

export const emptyRange = (): RangeDraft => ({ id: ++lastId, first: "1", last: "", step: "1", opens: "", closes: "", warnWhenLeft: "" });

export const emptyDraft = (today: string): Draft => ({ key: "", title: "", namespace: "", pattern: "", restarts: "", ranges: [{ ...emptyRange(), opens: `${today.slice(0, 4)}-01-01` }] });

export const draftOf = (series: SeriesView): Draft => ({
  key: series.key, title: series.title, namespace: series.namespace, pattern: series.pattern, restarts: series.restarts[0] ?? "",
  ranges: series.ranges.map((range) => ({ id: ++lastId, first: String(range.first), last: String(range.last), step: String(range.step), opens: range.opens, closes: range.closes ?? "", warnWhenLeft: range.warnWhenLeft === undefined ? "" : String(range.warnWhenLeft) })),
});

const number = (text: string): number | undefined => (text.trim() === "" ? undefined : Number(text));
const text = (value: string): string | undefined => (value.trim() === "" ? undefined : value);

export const formOf = (draft: Draft): SeriesForm => ({
  key: text(draft.key), title: text(draft.title), namespace: text(draft.namespace), pattern: text(draft.pattern), restarts: draft.restarts ? [draft.restarts] : [],
  ranges: draft.ranges.map((range) => ({ first: number(range.first), last: number(range.last), step: number(range.step), opens: text(range.opens), closes: text(range.closes), warnWhenLeft: number(range.warnWhenLeft) })),
});

/** The faults at a property, and at those inside it that have no field of their own. */
export const faultsAt = (faults: Fault[], path: string): Fault[] => faults.filter((fault) => fault.path === path || (path === "restarts" && fault.path.startsWith("restarts[")));
