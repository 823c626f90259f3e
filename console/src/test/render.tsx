import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render } from "@testing-library/react";
import { type ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { afterEach, vi } from "vitest";

/** The answers of a service that is not there, by the path behind /api/v1. */
export const answering = (answers: Record<string, unknown>) => {
  const asked = vi.fn((path: string, init?: RequestInit) => {
    const at = `${init?.method ?? "GET"} ${path.replace("/api/v1", "")}`;
    const answer = answers[at] ?? answers[at.replace(/\?.*/, "")];
    return Promise.resolve(
      answer instanceof Response
        ? answer
        : new Response(JSON.stringify(answer ?? { detail: `${at} was not expected` }), { status: answer ? 200 : 404 }),
    );
  });
  vi.stubGlobal("fetch", asked);
  return asked;
};

/** A component as a page shows it, with nothing asked again. */
export const shown = (content: ReactNode) =>
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter>{content}</MemoryRouter>
    </QueryClientProvider>,
  );

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});
