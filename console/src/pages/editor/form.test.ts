import { expect, test } from "vitest";
import type { SeriesForm } from "../../api/client.ts";
import { draftOf, emptyDraft, formOf } from "./form.ts";

const whole: SeriesForm = {
  key: "part",
  title: "Parts",
  namespace: "part",
  pattern: "{field group}-{count 4}",
  locale: "en-GB",
  fiscalYearStarts: 4,
  fields: [
    { name: "group", codebook: "component" },
    { name: "kind", within: "group" },
    { name: "note", longest: 10, symbols: "A-Z" },
  ],
  restarts: ["field group"],
  skips: { values: ["13", "100..199"], containing: ["666"] },
  order: "scattered",
  longest: 12,
  symbols: "digits",
  typed: "allowed",
  gaps: "allowed",
  returns: "refused",
  chronological: true,
  proof: "waived",
  ranges: [
    { first: 1, last: 99, step: 2, opens: "2026-01-01", closes: "2026-12-31", warnWhenLeft: 5, warnDaysBefore: 30 },
  ],
};

test("what was defined comes back from the form as it was", () => {
  expect(formOf(draftOf(whole))).toEqual(whole);
});

test("what is left empty is left out", () => {
  const sent = JSON.parse(JSON.stringify(formOf({ ...emptyDraft("2026-03-02"), key: "a" }))) as SeriesForm;
  expect(sent.key).toBe("a");
  for (const name of ["title", "namespace", "locale", "fiscalYearStarts", "order", "longest", "typed"] as const)
    expect(sent, name).not.toHaveProperty(name);
});

test("a new series opens with the year", () => {
  expect(emptyDraft("2026-03-02").ranges[0]?.opens).toBe("2026-01-01");
});

test("each row is told apart by the page", () => {
  const ids = draftOf({ ...whole, ranges: [...(whole.ranges ?? []), ...(whole.ranges ?? [])] }).ranges.map(
    ({ id }) => id,
  );
  expect(new Set(ids).size).toBe(2);
});
