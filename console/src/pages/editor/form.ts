import type { Fault, SeriesForm } from "../../api/client.ts";

/** What stands in the fields, as text, so that whatever is typed can be shown to the service and back. */
export type Draft = { key: string; title: string; namespace: string; pattern: string; locale: string; fiscalYearStarts: string; restarts: string[]; longest: string; symbols: string; ranges: RangeDraft[] };
export type RangeDraft = { id: number; first: string; last: string; step: string; opens: string; closes: string; warnWhenLeft: string };
export type TextName = Exclude<keyof Draft, "restarts" | "ranges">;

let lastId = 0;

export const emptyRange = (): RangeDraft => ({ id: ++lastId, first: "1", last: "", step: "1", opens: "", closes: "", warnWhenLeft: "" });

export const emptyDraft = (today: string): Draft => ({ key: "", title: "", namespace: "", pattern: "", locale: "", fiscalYearStarts: "", restarts: [], longest: "", symbols: "", ranges: [{ ...emptyRange(), opens: `${today.slice(0, 4)}-01-01` }] });

const shown = (value: string | number | undefined): string => (value === undefined ? "" : String(value));

export const draftOf = (form: SeriesForm): Draft => ({
  key: shown(form.key), title: shown(form.title), namespace: shown(form.namespace), pattern: shown(form.pattern), locale: shown(form.locale), fiscalYearStarts: shown(form.fiscalYearStarts), restarts: form.restarts ?? [], longest: shown(form.longest), symbols: shown(form.symbols),
  ranges: (form.ranges ?? []).map((range) => ({ id: ++lastId, first: shown(range.first), last: shown(range.last), step: shown(range.step), opens: shown(range.opens), closes: shown(range.closes), warnWhenLeft: shown(range.warnWhenLeft) })),
});

const number = (text: string): number | undefined => (text.trim() === "" ? undefined : Number(text));
const text = (value: string): string | undefined => (value.trim() === "" ? undefined : value);

export const formOf = (draft: Draft): SeriesForm => ({
  key: text(draft.key), title: text(draft.title), namespace: text(draft.namespace), pattern: text(draft.pattern), locale: text(draft.locale), fiscalYearStarts: number(draft.fiscalYearStarts), restarts: draft.restarts, longest: number(draft.longest), symbols: text(draft.symbols),
  ranges: draft.ranges.map((range) => ({ first: number(range.first), last: number(range.last), step: number(range.step), opens: text(range.opens), closes: text(range.closes), warnWhenLeft: number(range.warnWhenLeft) })),
});

/** The faults at a property, and at those inside it that have no field of their own. */
export const faultsAt = (faults: Fault[], path: string): Fault[] => faults.filter((fault) => fault.path === path || (path === "restarts" && fault.path.startsWith("restarts[")));
