import { beforeAll, expect, test, vi } from "vitest";

let outcomeOf: typeof import("./posts").outcomeOf;

beforeAll(async () => {
  vi.stubGlobal("window", { location: { origin: "http://here" }, addEventListener: () => undefined });
  vi.stubGlobal("navigator", { onLine: true });
  ({ outcomeOf } = await import("./posts"));
});

const answer = (status: number, detail?: string) => ({
  error: detail ? { detail } : undefined,
  response: new Response(null, { status }),
});

test("what the server will never take is refused with its own words", () => {
  for (const status of [400, 404, 409, 413, 422])
    expect(outcomeOf(answer(status, "not so"))).toEqual({ kind: "refused", reason: "not so" });
});

test("what may work later is kept, and said for what it is", () => {
  const because = (status: number) => {
    const outcome = outcomeOf(answer(status));
    return outcome.kind === "later" ? outcome.because : outcome.kind;
  };
  expect([401, 403].map(because)).toEqual(["signed-out", "signed-out"]);
  expect([429, 502, 503, 504].map(because)).toEqual(Array(4).fill("offline"));
  expect([500, 507].map(because)).toEqual(["trouble", "trouble"]);
});
