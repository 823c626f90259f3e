// @vitest-environment jsdom
import { fireEvent, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import type { KindView } from "../../api/client.ts";
import { answering, shown } from "../../test/render.tsx";
import { LineEditor } from "./LineEditor.tsx";
import type { Line } from "./record.ts";

const kind = { lines: [{ name: "text", title: "Reference", type: "text" }], lineStep: 10 } as unknown as KindView;
const lines: Line[] = ["a", "b", "c"].map((id, at) => ({ id, number: (at + 1) * 10, fields: { text: id } }));

const editor = (properties: Partial<Parameters<typeof LineEditor>[0]> = {}) => {
  const onChange = vi.fn<(lines: Line[]) => void>();
  answering({ "GET /codebooks": [] });
  shown(<LineEditor kind={kind} lines={lines} onChange={onChange} {...properties} />);
  return onChange;
};
const numbers = () => screen.getAllByLabelText(/^Line /).map((each) => each.textContent);

test("numbers close up where nothing is fixed", () => {
  editor({ lines: [lines[0]!, lines[2]!] });
  expect(numbers()).toEqual(["10", "20"]);
});

test("a fixed line keeps its number, and a new one follows the highest that there ever was", () => {
  editor({ lines: [lines[0]!, lines[2]!, { id: "new", fields: {} }], fixed: true, last: 40 });
  expect(numbers()).toEqual(["10", "30", "50"]);
});

test("a line is moved up", () => {
  const onChange = editor();
  fireEvent.click(screen.getByLabelText("Move line 20 up"));
  expect(onChange.mock.calls[0]?.[0].map((line) => line.id)).toEqual(["b", "a", "c"]);
});

test("a fixed line is not moved", () => {
  editor({ fixed: true, last: 30 });
  expect(screen.queryByLabelText(/Move line/)).toBeNull();
});

test("a line is taken out", () => {
  const onChange = editor();
  fireEvent.click(screen.getByLabelText("Remove line 20"));
  expect(onChange.mock.calls[0]?.[0].map((line) => line.id)).toEqual(["a", "c"]);
});

test("what is wrong stands at its line", () => {
  editor({ faulty: 1, remark: "It is too long." });
  expect(screen.getByText("It is too long.").closest("li")?.textContent).toContain("20");
});
