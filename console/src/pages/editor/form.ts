import type { Fault, SeriesForm } from "../../api/client.ts";

/** What stands in the fields, as text, so that whatever is typed can be shown to the service and back. */
export type Draft = {
  key: string;
  title: string;
  namespace: string;
  pattern: string;
  locale: string;
  fiscalYearStarts: string;
  fields: FieldDraft[];
  restarts: string[];
  skipsValues: string;
  skipsContaining: string;
  order: string;
  longest: string;
  symbols: string;
  typed: string;
  gaps: string;
  returns: string;
  chronological: string;
  proof: string;
  ranges: RangeDraft[];
};
export type RangeDraft = {
  id: number;
  first: string;
  last: string;
  step: string;
  opens: string;
  closes: string;
  warnWhenLeft: string;
  warnDaysBefore: string;
};
export type FieldDraft = {
  id: number;
  name: string;
  kind: "codebook" | "within" | "text";
  codebook: string;
  within: string;
  longest: string;
  symbols: string;
};
export type TextName = Exclude<keyof Draft, "restarts" | "ranges" | "fields">;

let lastId = 0;

export const emptyRange = (): RangeDraft => ({
  id: ++lastId,
  first: "1",
  last: "",
  step: "1",
  opens: "",
  closes: "",
  warnWhenLeft: "",
  warnDaysBefore: "",
});

export const emptyField = (): FieldDraft => ({
  id: ++lastId,
  name: "",
  kind: "codebook",
  codebook: "",
  within: "",
  longest: "",
  symbols: "",
});

export const emptyDraft = (today: string): Draft => ({
  key: "",
  title: "",
  namespace: "",
  pattern: "",
  locale: "",
  fiscalYearStarts: "",
  fields: [],
  restarts: [],
  skipsValues: "",
  skipsContaining: "",
  order: "",
  longest: "",
  symbols: "",
  typed: "",
  gaps: "",
  returns: "",
  chronological: "",
  proof: "",
  ranges: [{ ...emptyRange(), opens: `${today.slice(0, 4)}-01-01` }],
});

const shown = (value: string | number | undefined): string => (value === undefined ? "" : String(value));

export const draftOf = (form: SeriesForm): Draft => ({
  key: shown(form.key),
  title: shown(form.title),
  namespace: shown(form.namespace),
  pattern: shown(form.pattern),
  locale: shown(form.locale),
  fiscalYearStarts: shown(form.fiscalYearStarts),
  fields: (form.fields ?? []).map((field) => ({
    id: ++lastId,
    name: shown(field.name),
    kind: field.codebook ? "codebook" : field.within ? "within" : "text",
    codebook: shown(field.codebook),
    within: shown(field.within),
    longest: shown(field.longest),
    symbols: shown(field.symbols),
  })),
  restarts: form.restarts ?? [],
  skipsValues: (form.skips?.values ?? []).join(", "),
  skipsContaining: (form.skips?.containing ?? []).join(", "),
  order: shown(form.order),
  longest: shown(form.longest),
  symbols: shown(form.symbols),
  typed: form.typed === "refused" ? "" : shown(form.typed),
  gaps: shown(form.gaps),
  returns: shown(form.returns),
  chronological: form.chronological ? "true" : "",
  proof: shown(form.proof),
  ranges: (form.ranges ?? []).map((range) => ({
    id: ++lastId,
    first: shown(range.first),
    last: shown(range.last),
    step: shown(range.step),
    opens: shown(range.opens),
    closes: shown(range.closes),
    warnWhenLeft: shown(range.warnWhenLeft),
    warnDaysBefore: shown(range.warnDaysBefore),
  })),
});

const number = (text: string): number | undefined => (text.trim() === "" ? undefined : Number(text));
const text = (value: string): string | undefined => (value.trim() === "" ? undefined : value);

/** A word as the fields offer it; the service says what is none. */
const word = <T extends string>(value: string): T | undefined => text(value) as T | undefined;

/** What stands between commas. */
const list = (value: string): string[] | undefined =>
  value.trim() === ""
    ? undefined
    : value
        .split(",")
        .map((each) => each.trim())
        .filter((each) => each !== "");

export const formOf = (draft: Draft): SeriesForm => ({
  key: text(draft.key),
  title: text(draft.title),
  namespace: text(draft.namespace),
  pattern: text(draft.pattern),
  locale: text(draft.locale),
  fiscalYearStarts: number(draft.fiscalYearStarts),
  fields:
    draft.fields.length === 0
      ? undefined
      : draft.fields.map((field) => ({
          name: text(field.name),
          ...(field.kind === "codebook"
            ? { codebook: field.codebook }
            : field.kind === "within"
              ? { within: field.within }
              : { longest: number(field.longest), symbols: text(field.symbols) }),
        })),
  restarts: draft.restarts,
  skips:
    draft.skipsValues.trim() || draft.skipsContaining.trim()
      ? { values: list(draft.skipsValues), containing: list(draft.skipsContaining) }
      : undefined,
  order: word(draft.order),
  longest: number(draft.longest),
  symbols: text(draft.symbols),
  typed: word(draft.typed),
  gaps: word(draft.gaps),
  returns: word(draft.returns),
  chronological: draft.chronological === "true" ? true : undefined,
  proof: word(draft.proof),
  ranges: draft.ranges.map((range) => ({
    first: number(range.first),
    last: number(range.last),
    step: number(range.step),
    opens: text(range.opens),
    closes: text(range.closes),
    warnWhenLeft: number(range.warnWhenLeft),
    warnDaysBefore: number(range.warnDaysBefore),
  })),
});

/** The faults at a property, and at those inside it that have no field of their own. */
export const faultsAt = (faults: Fault[], path: string): Fault[] =>
  faults.filter(
    (fault) =>
      fault.path === path ||
      ((path === "restarts" || path.startsWith("skips.")) && fault.path.startsWith(`${path}[`)) ||
      (path === "skips.values" && fault.path === "skips"),
  );
