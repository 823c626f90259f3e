import type { Fault, SeriesForm } from "../../api/client.ts";
import { seriesProperties } from "../../api/seriesProperties.ts";

/** The properties that are one text in a field of the form, by their names in the interface. */
export type Single = {
  [Name in keyof typeof seriesProperties]: (typeof seriesProperties)[Name]["kind"] extends "group" ? never : Name;
}[keyof typeof seriesProperties];

export const singles = (Object.keys(seriesProperties) as (keyof typeof seriesProperties)[]).filter(
  (name): name is Single => seriesProperties[name].kind !== "group",
);

/** What is in the fields, as text, so that whatever is typed can be shown to the service and back. */
export type Draft = Record<Single, string> & {
  fields: FieldDraft[];
  restarts: string[];
  skipsValues: string;
  skipsContaining: string;
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
  kind: "codebook" | "units" | "within" | "text";
  codebook: string;
  within: string;
  longest: string;
  symbols: string;
};
export type TextName = Single | "skipsValues" | "skipsContaining";

/** Where the faults of a field are told. */
export const pathOf = (name: TextName): string =>
  name === "skipsValues"
    ? "skips.values"
    : name === "skipsContaining"
      ? "skips.containing"
      : seriesProperties[name].inFiles;

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

const each = (value: (name: Single) => string) =>
  Object.fromEntries(singles.map((name) => [name, value(name)])) as Record<Single, string>;

export const emptyDraft = (today: string): Draft => ({
  ...each(() => ""),
  fields: [],
  restarts: [],
  skipsValues: "",
  skipsContaining: "",
  ranges: [{ ...emptyRange(), opens: `${today.slice(0, 4)}-01-01` }],
});

const shown = (value: string | number | boolean | undefined): string => (value === undefined ? "" : String(value));

/** What is as usual is left out. */
export const draftOf = (form: SeriesForm): Draft => ({
  ...each((name) => (form[name] === seriesProperties[name].usual ? "" : shown(form[name]))),
  fields: (form.fields ?? []).map((field) => ({
    id: ++lastId,
    name: shown(field.name),
    kind: field.units ? "units" : field.codebook ? "codebook" : field.within ? "within" : "text",
    codebook: shown(field.codebook),
    within: shown(field.within),
    longest: shown(field.longest),
    symbols: shown(field.symbols),
  })),
  restarts: form.restarts ?? [],
  skipsValues: (form.skips?.values ?? []).join(", "),
  skipsContaining: (form.skips?.containing ?? []).join(", "),
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

const value = (name: Single, typed: string): string | number | boolean | undefined =>
  ({ text, word: text, whole: number, flag: (flag: string) => (flag === "" ? undefined : flag === "true") })[
    seriesProperties[name].kind
  ](typed);

/** What stands between commas. */
const list = (value: string): string[] | undefined =>
  value.trim() === ""
    ? undefined
    : value
        .split(",")
        .map((each) => each.trim())
        .filter((each) => each !== "");

export const formOf = (draft: Draft): SeriesForm => ({
  ...(Object.fromEntries(singles.map((name) => [name, value(name, draft[name])])) as Pick<SeriesForm, Single>),
  fields:
    draft.fields.length === 0
      ? undefined
      : draft.fields.map((field) => ({
          name: text(field.name),
          ...(field.kind === "codebook"
            ? { codebook: field.codebook }
            : field.kind === "units"
              ? { units: true }
              : field.kind === "within"
                ? { within: field.within }
                : { longest: number(field.longest), symbols: text(field.symbols) }),
        })),
  restarts: draft.restarts,
  skips:
    draft.skipsValues.trim() || draft.skipsContaining.trim()
      ? { values: list(draft.skipsValues), containing: list(draft.skipsContaining) }
      : undefined,
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
