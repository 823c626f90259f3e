// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import { expect, test } from "vitest";
import { Problem } from "../../api/client.ts";
import { shown } from "../../test/render.tsx";
import { LineFaults } from "./LineFaults.tsx";

test("every line with a fault is listed, with what would do", () => {
  const faults = [2, 3].map((line) => ({
    line,
    path: "",
    problem: `‘X${line}’ is not a choice.`,
    accepted: "Cornice (CO)",
  }));
  shown(<LineFaults error={new Problem(422, "/problems/field-faulty", "Line 2 …", "kind", "", faults)} />);
  expect(screen.getAllByRole("listitem").map((line) => line.textContent)).toEqual([
    "Line 2: ‘X2’ is not a choice. Cornice (CO)",
    "Line 3: ‘X3’ is not a choice. Cornice (CO)",
  ]);
});
