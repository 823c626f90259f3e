import type { KindView, RecordView, UnitView } from "../../api/client.ts";
import type { Rule } from "../../parts/FieldInputs.tsx";

export type Values = Record<string, string>;

/** A line as it is being written; one without a number is new. @param id by which the page tells it from others */
export type Line = { id: string; number?: number; fields: Values };

/** The fields that people fill. */
export const asked = (kind: KindView): Rule[] => kind.fields.filter((field) => !field.filled);

/** What is given: without what is empty. */
export const given = (values: Values): Values =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value.trim() !== ""));

export const linesOf = (record: RecordView): Line[] =>
  record.lines.map((line) => ({ id: String(line.number), number: line.number, fields: line.fields }));

export const sentLines = (lines: Line[]) => lines.map((line) => ({ number: line.number, fields: given(line.fields) }));

/** Where it stands first: the unit that it was made in. */
export const home = (record: RecordView): { unit: string; fields: Values } =>
  record.units[0] ?? { unit: "", fields: {} };

/** What people call a record: its first text beside the number. */
export const called = (record: RecordView, kind?: KindView): string => {
  const values = home(record).fields;
  const first = kind?.fields.find((field) => !field.filled && field.type === "text" && values[field.name]);
  return (first && values[first.name]) ?? "";
};

export const unitTitle = (units: UnitView[] | undefined, key: string): string =>
  units?.find((unit) => unit.key === key)?.title ?? key;
