import { expect, test } from "vitest";
import { stretches, valueAt } from "./overTime";

test("walk curves: what is not marked breaks them", () => {
  expect(stretches([null, 1, 2, null, 3, null])).toEqual([
    [1, 2],
    [4, 4],
  ]);
  expect(stretches([null])).toEqual([]);
});

test("walk curves: a value is told where there is one near, and none is made up between", () => {
  const curve = {
    reading: "pelvis_sway",
    unit: "m" as const,
    at_s: [-0.3, -0.2, -0.1],
    values: [0.01, null, 0.05],
    u95: [0.002, null, 0.004],
  };
  expect(valueAt(curve, -0.105)).toEqual({ value: 0.05, u95: 0.004 });
  expect(valueAt(curve, -0.2)).toBeNull();
});
