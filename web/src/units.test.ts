import { expect, test } from "vitest";
import { number, typed, withError, withErrorOrNothing } from "./units";
import { sidesOf } from "./words";

test("a number is read as it was typed, with a point or a comma", () => {
  expect(["156,5", "156.5", " 1.2 ", "−3", "7."].map(typed)).toEqual([156.5, 156.5, 1.2, -3, 7]);
  expect(["", "abc", "1,2,3", "1.2.3", "12cm"].map(typed)).toEqual(Array(5).fill(Number.NaN));
});

test("tempo is said as it is spoken, shares in per cent", () => {
  expect(withError(3.46, 0.31, "to_one", "cm")).toBe("3.5 ± 0.3 to 1");
  expect(withError(0.464, 0.12, "m_s", "cm", true)).toBe("+46 ± 12 cm/s");
  expect(withError(-0.5, 0.12, "m_s", "in")).toBe("−20 ± 5 in/s");
  expect(withError(0.62, 0.03, "ratio", "cm")).toBe("62 ± 3 %");
  expect(withError(137.16, 3, "far", "in")).toBe("150 ± 3 yd");
  expect(withError(35.76, 0.7, "fast", "in")).toBe("80.0 ± 1.6 mph");
  expect(withError(-2.34, 1.5, "shot_deg", "cm", true)).toBe("−2.3 ± 1.5°");
});

test("a time that is too unsure says that it tells nothing", () => {
  expect(withErrorOrNothing(-0.156, 0.627, "s", "cm", true)).toBe("cannot be told (± 627 ms)");
  expect(withErrorOrNothing(-0.156, 0.02, "s", "cm", true)).toBe("−156 ± 20 ms");
  expect(withErrorOrNothing(-0.9, 0.3, "s", "cm", true)).toBe("−900 ± 300 ms");
});

test("a student reads left and right by their own hand", () => {
  expect(sidesOf("trail hip −4.3 ± 1.6 cm", "right")).toBe("right hip −4.3 ± 1.6 cm");
  expect(sidesOf("lead hip +2.0 cm, trail heel", "left")).toBe("right hip +2.0 cm, left heel");
});

test("lengths follow the chosen units; nothing has no sign", () => {
  expect(number(0.0254, "m", "in")).toBe("1.0");
  expect(number(-0.0001, "m", "cm", true)).toBe("0.0");
});
