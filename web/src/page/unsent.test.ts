import { expect, test, vi } from "vitest";
import type { Schemas } from "../api/client";
import { withUnsent } from "./unsent";

vi.mock("../outbox", () => ({ outbox: () => ({ add: () => undefined }) }));
vi.mock("../outbox/posts", () => ({ pageLane: (token: string) => token }));

const { today, weeks } = await import("./practice");

const tick = (drill: string, day: string, step: number) => ({
  kind: "tick" as const,
  token: "t",
  tickId: `${drill} ${day}`,
  tick: { drill, day, step, places: [], words: "" },
});
const page = (practised: Partial<Schemas["PractisedOut"]>[] = []) =>
  ({ focus: [], messages: [], practised }) as unknown as Schemas["OwnPageOut"];

test("what was ticked here stands before the server has it, once a day, in the order it was done", () => {
  const known = page([{ id: "known", drill: "a", day: "2026-11-28", step: 1, speaks_up: false }]);
  const { practised } = withUnsent(known, [
    tick("a", "2026-11-28", 3),
    tick("b", "2026-11-29", 1),
    tick("b", "2026-11-29", 2),
  ]);
  expect(practised.map(({ drill, step }) => [drill, step])).toEqual([
    ["b", 2],
    ["a", 3],
  ]);
  expect(practised[1]?.id).toBe("known"); // so that it is taken back by the server's own name for it
  const undone = { kind: "untick" as const, token: "t", tickId: "known", drill: "a", day: "2026-11-28" };
  expect(withUnsent(known, [tick("a", "2026-11-28", 3), undone]).practised).toEqual([]);
});

test("a question that waits is shown once, also when the server has it already", () => {
  const asked = { kind: "ask" as const, token: "t", message: { id: "q", words: "More?", voice: "" } };
  const waiting = withUnsent(page(), [asked]).messages;
  expect(waiting.map(({ words, waits }) => [words, waits])).toEqual([["More?", true]]);
  const there = { ...page(), messages: waiting } as Schemas["OwnPageOut"];
  expect(withUnsent(there, [asked]).messages).toHaveLength(1);
});

test("weeks begin on Monday and end with the one that today lies in, across months and the clock's change", () => {
  const now = new Date(2026, 2, 29, 3, 30); // Sunday; in Europe the clocks go forward that night
  const rows = weeks(4, now);
  expect(rows.map((week) => week[0])).toEqual(["2026-03-02", "2026-03-09", "2026-03-16", "2026-03-23"]);
  expect(rows.at(-1)?.at(-1)).toBe("2026-03-29");
  expect(today(now)).toBe("2026-03-29");
  expect(new Set(rows.flat()).size).toBe(28);
});
