import { expect, test } from "vitest";
import { goalWords, readWords } from "./goalWords";

const sway = { reading: "pelvis_sway", at: "top", unit: "m" } as const;

test("a goal is said in ways and sides, not in signs", () => {
  expect(goalWords({ ...sway, low: -0.06, high: -0.005 }, "cm", "right")).toBe(
    "at the top, your hips 0.5 cm to 6.0 cm away from the target",
  );
  expect(goalWords({ ...sway, low: -0.025, high: 0.015 }, "cm", "right")).toBe(
    "at the top, your hips between 2.5 cm away from the target and 1.5 cm toward the target",
  );
  expect(goalWords({ ...sway, low: -0.06, high: null }, "in", "right")).toBe(
    "at the top, your hips no more than 2.4 in away from the target",
  );
  expect(goalWords({ ...sway, low: 0.02, high: null }, "cm", "right")).toContain(
    "at least 2.0 cm toward the target",
  );
  expect(goalWords({ ...sway, low: 0, high: null }, "cm", "right")).toContain("not away from the target");
  expect(goalWords({ ...sway, low: 0, high: 0.12 }, "cm", "right")).toContain(
    "no more than 12.0 cm toward the target",
  );
});

test("the sides are those of the student's hand", () => {
  const goal = { reading: "trail_hip_gap", at: "top", unit: "m", low: 0.0, high: null } as const;
  expect(goalWords(goal, "cm", "right")).toBe("at the top, your right hip not outside your shoe");
  expect(goalWords(goal, "cm", "left")).toBe("at the top, your left hip not outside your shoe");
});

test("what goes one way only is said as a range", () => {
  const flex = { reading: "knee_flex_lead", at: "impact", unit: "deg", low: 12, high: 35 } as const;
  expect(goalWords(flex, "cm", "right")).toBe("at impact, the bend of your left knee between 12 and 35°");
});

test("what was read is said in the same words", () => {
  expect(readWords("pelvis_turn", -31, "deg", "cm", "left")).toBe("31° open to the target");
  expect(readWords("stance_ratio", 1.2, "ratio", "cm", "left")).toBe("120 %");
});
