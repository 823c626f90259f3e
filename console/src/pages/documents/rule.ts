/** A rule as a text, and what the page changes in it. */
export const BEGUN = `# Which texts, in what order, and what is written.
choose:
  - { attribute: class, values: [call-out] }
order:
  - { by: rows, tolerance: 8 }
number: missing
pattern: "{count}"
`;

const PICKED = /^ *- picked: (\[.*\])$/m;

/** The items that the rule picks, in their order. */
export function picks(rule: string): string[] {
  const found = PICKED.exec(rule)?.[1];
  if (!found) return [];
  try {
    const list: unknown = JSON.parse(found);
    return Array.isArray(list) && list.every((each) => typeof each === "string") ? list : [];
  } catch {
    // Somebody is writing it at this moment.
    return [];
  }
}

/** The rule without a property of its first level, whatever lines that has. */
const without = (rule: string, property: string) =>
  rule.replace(new RegExp(`^${property}:.*\\n?(?:[ \\t-].*\\n?)*`, "m"), "");

/** The rule with these picks in the place of what it chose before, and of its order. */
export function withPicks(rule: string, items: string[]): string {
  const rest = without(without(rule, "choose"), "order");
  if (items.length === 0) return rest;
  return `${rest.trimEnd()}\nchoose:\n  - picked: ${JSON.stringify(items)}\n`.trimStart();
}

/** A list with one of its items in front of another place. */
export function moved<T>(list: T[], from: number, to: number): T[] {
  const left = list.filter((_, at) => at !== from);
  const item = list[from];
  if (item === undefined) return list;
  return [...left.slice(0, to), item, ...left.slice(to)];
}
