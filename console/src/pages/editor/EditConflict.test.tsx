// @vitest-environment jsdom
import { fireEvent, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { answering, shown } from "../../test/render.tsx";
import { EditConflict, together } from "./EditConflict.tsx";
import { draftOf, type Draft } from "./form.ts";

const begun = draftOf({ key: "part", title: "Parts", pattern: "P{count 4}", ranges: [{ first: 1, last: 99 }] });
const mine: Draft = { ...begun, title: "All parts" };

test("what I changed stays mine, and all else is theirs", () => {
  const theirs = { ...begun, title: "Their parts", pattern: "P{count 5}" };
  expect(together(begun, mine, theirs)).toMatchObject({ title: "All parts", pattern: "P{count 5}" });
});

test("rows that say the same are no change, whatever the page calls them", () => {
  const same = draftOf({ key: "part", title: "Parts", pattern: "P{count 4}", ranges: [{ first: 1, last: 99 }] });
  const theirs = { ...begun, ranges: [{ ...begun.ranges[0]!, last: "500" }] };
  expect(together(begun, same, theirs).ranges[0]?.last).toBe("500");
});

const conflict = (onTake = vi.fn(), onGoOn = vi.fn()) => {
  answering({
    "GET /series/part/definition": new Response(
      JSON.stringify({ key: "part", title: "Their parts", pattern: "P{count 4}", ranges: [{ first: 1, last: 99 }] }),
      { headers: { ETag: '"4"' } },
    ),
    "GET /entries": [{ seq: 9, at: "2026-03-02T10:00:00Z", by: "ines", act: "define" }],
  });
  shown(<EditConflict begun={begun} mine={mine} onTake={onTake} onGoOn={onGoOn} />);
};

test("it says who changed the series meanwhile", async () => {
  conflict();
  expect(await screen.findByText(/ines changed this series/)).toBeTruthy();
});

test("theirs can be taken, thing by thing", async () => {
  const onTake = vi.fn();
  conflict(onTake);
  fireEvent.click(await screen.findByLabelText("Use their edit: title"));
  expect(onTake).toHaveBeenCalledWith({ title: "Their parts" });
});

test("both go on together, on the version that is there now", async () => {
  const onGoOn = vi.fn();
  conflict(vi.fn(), onGoOn);
  fireEvent.click(await screen.findByText("Merge"));
  expect(onGoOn).toHaveBeenCalledWith(expect.objectContaining({ version: 4 }));
});
