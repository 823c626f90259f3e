// @vitest-environment jsdom
import { fireEvent, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { answering, shown } from "../test/render.tsx";
import { FieldInputs, isComplete, type Rule } from "./FieldInputs.tsx";

const rules: Rule[] = [
  { name: "group", title: "Group", codebook: "component" },
  { name: "kind", title: "Kind", within: "group" },
  { name: "note", title: "Note" },
];
const component = {
  key: "component",
  choices: [
    { code: "WC", name: "Wind-chest", choices: [{ code: "PA", name: "Pallet" }] },
    { code: "OL", name: "Old", retired: true, choices: [] },
  ],
};

const inputs = (values: Record<string, string>) => {
  const onChange = vi.fn();
  answering({ "GET /codebooks": [component] });
  shown(<FieldInputs rules={rules} values={values} onChange={onChange} />);
  return onChange;
};

test("a choice narrows the one within it", async () => {
  inputs({ group: "WC" });
  expect(await screen.findByText(/Pallet/)).toBeTruthy();
});

test("another choice above leaves none below", async () => {
  const onChange = inputs({ group: "WC", kind: "PA", note: "x" });
  await screen.findByText(/Pallet/);
  fireEvent.change(screen.getByLabelText(/Group/), { target: { value: "" } });
  expect(onChange).toHaveBeenCalledWith({ group: "", note: "x" });
});

test("a retired choice is not offered", async () => {
  inputs({});
  await screen.findByText(/Wind-chest/);
  expect(screen.queryByText(/Old/)).toBeNull();
});

test("fields are complete once each is given something", () => {
  expect(isComplete(rules, { group: "WC", kind: "PA", note: " " })).toBe(false);
});
