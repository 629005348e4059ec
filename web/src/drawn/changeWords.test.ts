import { expect, test } from "vitest";
import { type Change, changeWords, countWords, settlesWords, sureWords } from "./changeWords";

const CHANGE: Change = {
  // biome-ignore lint/suspicious/noThenProperty: then and now are what the trade says
  then: -0.124,
  then_u95: 0.02,
  then_swings: 1,
  now: -0.062,
  now_u95: 0.02,
  now_swings: 4,
  by: 0.062,
  low: 0.038,
  high: 0.086,
  u95: 0.024,
  sure: 0.9987,
  moved: "toward",
  settles: null,
};

test("a change is said with its error, and never surer than a hundredth tells", () => {
  expect(changeWords(CHANGE, "m", "cm")).toBe("moved toward the band by +6.2 ± 2.4 cm, more than 99 % sure");
  expect(sureWords(0.9899)).toBe("98 %");
  expect(countWords(CHANGE)).toBe("one swing then, 4 now");
});

test("where nothing is shown it says what would have been seen, in the reader's units", () => {
  const still: Change = { ...CHANGE, moved: "not_shown" };
  expect(changeWords(still, "m", "in")).toContain("more than 0.9 in would have been seen");
});

test("what cannot be told says which swings would tell, or that none do", () => {
  const unsure = (settles: Change["settles"]): Change => ({ ...CHANGE, moved: "unsure", settles });
  expect(settlesWords(unsure({ swings: 2, days: 0, measuring: false }))).toBe(
    "About 2 more swings of the same day would tell.",
  );
  expect(settlesWords(unsure({ swings: 6, days: 2, measuring: true }), "depth")).toBe(
    "About 6 more swings on 2 other days would tell. Most of what is unsure is how it is measured: the other view would help most.",
  );
  expect(settlesWords(unsure({ swings: 0, days: 0, measuring: false }))).toBe(
    "No count of swings would tell.",
  );
  expect(settlesWords(CHANGE)).toBe("");
});
