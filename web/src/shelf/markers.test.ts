import { expect, test } from "vitest";
import { axisWords, counted, type Meaning, missing, said } from "./markers";

const MEANING: Meaning = { up: "+y", toward: "-z", marks: { L_hip: "lead_hip", R_hip: "trail_hip" } };

test("a label stands for one mark, for another, or for none", () => {
  const knee = said(said(MEANING, "L_in", "lead_knee"), "L_out", "lead_knee");
  expect(counted(knee).get("lead_knee")).toBe(2);
  expect(counted(said(knee, "L_in", "lead_ankle")).get("lead_knee")).toBe(1);
  expect(said(knee, "L_in", "").marks).not.toHaveProperty("L_in");
  expect(MEANING.marks).not.toHaveProperty("L_in");
});

test("what a swing cannot be read without is named while nothing stands for it", () => {
  expect(missing(MEANING)).toEqual(["lead_ankle", "trail_ankle"]);
  const whole = said(said(MEANING, "a", "lead_ankle"), "b", "trail_ankle");
  expect(missing(whole)).toEqual([]);
});

test("an axis is said with its way", () => {
  expect([axisWords("+y"), axisWords("-z")]).toEqual(["+Y", "−Z"]);
});
