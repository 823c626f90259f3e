// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { shown } from "../test/render.tsx";
import { FaultList } from "./FaultList.tsx";

it("counts from 1, as people do", () => {
  shown(
    <FaultList
      label="Faults"
      faults={[{ line: 4, path: "order[0].by", problem: "‘row’ is not an option", accepted: "write rows" }]}
    />,
  );
  expect(screen.getByRole("listitem").textContent).toContain("Line 4: order[1].by ‘row’ is not an option");
});
