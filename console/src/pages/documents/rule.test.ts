import { describe, expect, it } from "vitest";
import { BEGUN, moved, picks, withPicks } from "./rule.ts";

describe("a rule", () => {
  it("picks nothing before somebody picks", () => {
    expect(picks(BEGUN)).toEqual([]);
  });

  it("has the picks in the place of its choice and its order", () => {
    expect(withPicks(BEGUN, ["1:a", '1:"b']).split("\n")).toEqual([
      "# Which texts, in what order, and what is written.",
      "number: missing",
      'pattern: "{count}"',
      "choose:",
      '  - picked: ["1:a","1:\\"b"]',
      "",
    ]);
  });

  it("is read back as it was written", () => {
    expect(picks(withPicks(withPicks(BEGUN, ["1:a"]), ["1:b", "1:a"]))).toEqual(["1:b", "1:a"]);
  });

  it("picks nothing while its list is half written", () => {
    expect(picks('choose:\n  - picked: ["1:a", ]\n')).toEqual([]);
  });
});

describe("an order", () => {
  it("has an item in another place", () => {
    expect(moved(["a", "b", "c"], 2, 0)).toEqual(["c", "a", "b"]);
    expect(moved(["a", "b", "c"], 0, 1)).toEqual(["b", "a", "c"]);
  });
});
