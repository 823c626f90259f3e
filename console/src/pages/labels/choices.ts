import { useMemo } from "react";
import type { LabelRequest, LabelTable, LayoutView } from "../../api/client.ts";
import { useKinds, useSeriesList } from "../../api/queries.ts";

export type Choices = {
  numbers: string;
  unit: string;
  quantity: string;
  copies: string;
  fields: Record<string, string>;
  /** With a row for each label. */
  table?: LabelTable;
};

export const NONE: Choices = { numbers: "", unit: "", quantity: "1", copies: "1", fields: {} };

/** What is asked for, once there is enough; what is chosen is a letter for kind or series, and its key. */
export const asked = (
  layout: Pick<LabelRequest, "layout" | "definition">,
  choices: Choices,
  fields: LabelField[],
): LabelRequest | undefined => {
  const [sort, key] = [choices.numbers.slice(0, 2), choices.numbers.slice(2)];
  if (!(layout.layout || layout.definition) || !key || (sort === "k:" && !choices.unit)) return undefined;
  return {
    ...layout,
    ...(sort === "k:" ? { kind: key } : { series: key }),
    ...(choices.unit ? { unit: choices.unit } : {}),
    fields: Object.fromEntries(
      fields
        .map(({ name }): [string, string] => [name, (choices.fields[name] ?? "").trim()])
        .filter(([, value]) => value !== ""),
    ),
    quantity: Number(choices.quantity) || 0,
    copies: Number(choices.copies) || 0,
    ...(choices.table ? { table: choices.table.table } : {}),
  };
};

/** A field to be filled in. */
export type LabelField = { name: string; title: string };

/** What the layout shows and asks for, and what its numbers cannot do without. */
export function useLabelFields(layout: LayoutView | undefined, choices: Choices): LabelField[] {
  const kinds = useKinds();
  const series = useSeriesList();
  return useMemo(() => {
    const titles = new Map<string, string>();
    for (const each of layout?.ask ?? []) titles.set(each.name, each.title);
    for (const name of layout?.fields ?? []) if (!titles.has(name)) titles.set(name, name);
    const kind = kinds.data?.find((each) => choices.numbers === `k:${each.key}`);
    for (const each of kind?.fields ?? [])
      if (each.required && !titles.has(each.name)) titles.set(each.name, each.title);
    const own = series.data?.find((each) => choices.numbers === `s:${each.key}`);
    for (const each of own?.fields ?? [])
      if (each.name !== "unit" && !titles.has(each.name)) titles.set(each.name, each.name);
    return [...titles].map(([name, title]) => ({ name, title }));
  }, [layout, choices.numbers, kinds.data, series.data]);
}
