import { afterEach, expect, test, vi } from "vitest";
import { get, Problem } from "./client.ts";

afterEach(() => vi.unstubAllGlobals());

const answered = (response: Response | Error) =>
  vi.stubGlobal("fetch", () => (response instanceof Error ? Promise.reject(response) : Promise.resolve(response)));

const refused = async (): Promise<Problem> => {
  try {
    await get("/series");
  } catch (e) {
    if (e instanceof Problem) return e;
    throw e;
  }
  throw new Error("it was not refused");
};

test("an answer is read", async () => {
  answered(new Response("[1]"));
  expect(await get("/series")).toEqual([1]);
});

test("a refusal says what was wrong and what would do", async () => {
  answered(
    new Response(
      JSON.stringify({ type: "/problems/exhausted", detail: "None is left.", field: "quantity", accepted: "0" }),
      {
        status: 422,
      },
    ),
  );
  expect(await refused()).toMatchObject({ status: 422, message: "None is left.", field: "quantity", accepted: "0" });
});

test("whoever is in front of the service may refuse in other words", async () => {
  answered(new Response("<h1>Bad gateway</h1>", { status: 502 }));
  expect((await refused()).message).toBe("The service answered 502.");
});

test("a service that is not reached is said to be so", async () => {
  answered(new Error("connection refused"));
  expect((await refused()).status).toBe(0);
});
