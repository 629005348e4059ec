import { expect, test } from "vitest";
import { keptLines, moved, startOf } from "./lines";

test("lines of a left-handed player start the other way round", () => {
  expect(startOf("hips", "right")).toEqual({ trail: 0.42, lead: 0.58, plumb: null, seat: null });
  expect(startOf("hips", "left").trail).toBeCloseTo(0.58);
});

test("a line stays in the picture, and what was kept badly is not believed", () => {
  const lines = startOf("plumb", "right");
  expect(moved(lines, "plumb", 3).plumb).toBe(0.98);
  expect(keptLines('{"plumb": 0.3, "trail": 0.1}', "plumb", "right")).toEqual({ ...lines, plumb: 0.3 });
  for (const bad of ["{", "7", '{"plumb": 12}', '{"plumb": "x"}', null])
    expect(keptLines(bad, "plumb", "right")).toEqual(lines);
});
