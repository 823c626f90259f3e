// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { shown } from "../../test/render.tsx";
import { emptyDraft } from "./form.ts";
import { OtherProperties } from "./OtherProperties.tsx";

test.each([true, false])("a series can be retired when it exists: %s", (exists) => {
  shown(<OtherProperties exists={exists} draft={emptyDraft("2026-03-02")} faults={[]} onChange={vi.fn()} />);
  expect(screen.queryByLabelText(/^Retired/) !== null).toBe(exists);
});
