import { expect, test } from "vitest";
import type { KindView, RecordView } from "../../api/client.ts";
import { called, given, home, linesOf, sentLines, unitTitle } from "./record.ts";

const record = {
  units: [{ unit: "works", fields: { number: "K10001", name: "Oldham" } }],
  lines: [{ number: 2, fields: { text: "a", price: " " } }],
} as unknown as RecordView;
const kind = {
  fields: [
    { name: "number", type: "text", filled: true },
    { name: "name", type: "text", filled: false },
  ],
} as unknown as KindView;

test("what is empty is not sent", () => {
  expect(given({ a: "x", b: " ", c: "" })).toEqual({ a: "x" });
});

test("a line that is kept is sent under its number, without what is empty", () => {
  expect(sentLines(linesOf(record))).toEqual([{ number: 2, fields: { text: "a" } }]);
});

test("a new line is sent without a number", () => {
  expect(sentLines([{ id: "new", fields: { text: "b" } }])).toEqual([{ number: undefined, fields: { text: "b" } }]);
});

test("a record is called by its first text beside the number", () => {
  expect(called(record, kind)).toBe("Oldham");
});

test("a record of no unit has no values", () => {
  expect(home({ ...record, units: [] })).toEqual({ unit: "", fields: {} });
});

test("a unit that is not known yet is called by its key", () => {
  expect(unitTitle(undefined, "works")).toBe("works");
});
