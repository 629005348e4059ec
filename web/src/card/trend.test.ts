import { expect, test } from "vitest";
import { inOrder, laid, paths, placeOf, spanOf, type Trend, timed } from "./trend";

const trend = (over: Partial<Trend> = {}): Trend => ({
  reading: "pelvis_turn",
  at: "top",
  unit: "deg",
  group: "pelvis",
  low: 38,
  high: 55,
  swing: [0, 1, 2, 3],
  value: [26, 40, 42, 50],
  u95: [2, 2, 2, 9],
  provisional: [false, false, false, true],
  ...over,
});
const swing = (received_at: string) => ({
  id: received_at,
  received_at,
  club: "7 iron",
  stretch: 0,
  filmed: true,
});
const SWINGS = [
  "2026-01-05T10:00:00",
  "2026-06-01T10:00:00",
  "2026-06-01T10:05:00",
  "2026-06-01T10:09:00",
].map(swing);

test("swings of one day lie side by side about their time, with the mean of those that were looked at", () => {
  const span = spanOf({ swings: SWINGS, lessons: [] });
  const { dots, days } = laid(trend(), timed(SWINGS), span, 300);
  expect(dots.map(({ number }) => number)).toEqual([0, 1, 2, 3]);
  const [, a, b, c] = dots.map(({ x }) => x);
  expect((b ?? 0) - (a ?? 0)).toBeCloseTo(5);
  expect((c ?? 0) - (b ?? 0)).toBeCloseTo(5);
  expect(b).toBeCloseTo(placeOf(Date.parse("2026-06-01T10:04:40"), span, 300), 1);
  expect(days).toHaveLength(1); // one swing alone is no mean
  expect(days[0]).toMatchObject({ mean: 41, swings: 2 });
});

test("a whole trend is two paths, with an end of every whisker where its error ends", () => {
  const { dots } = laid(trend(), timed(SWINGS), spanOf({ swings: SWINGS, lessons: [] }), 300);
  const drawn = paths(dots, (value) => 100 - value);
  expect(drawn.whiskers.match(/M/g)).toHaveLength(4);
  expect(drawn.whiskers).toContain("76V72"); // 24 to 28
  expect(drawn.points.match(/M/g)).toHaveLength(4);
});

test("goals go first, then what the model asks for", () => {
  const sway = trend({ reading: "pelvis_sway", low: null, high: null });
  const knee = trend({ reading: "knee_flex_trail" });
  const sorted = inOrder([sway, trend(), knee], [{ reading: "knee_flex_trail", at: "top" }]);
  expect(sorted.map(({ reading }) => reading)).toEqual(["knee_flex_trail", "pelvis_turn", "pelvis_sway"]);
});
