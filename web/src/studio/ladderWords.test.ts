import { expect, test } from "vitest";
import {
  type Against,
  byWords,
  type Column,
  cautionWords,
  movedWords,
  type Step,
  type Try,
  verdictWords,
} from "./ladderWords";

const TURN: Column = { column: "pelvis_turn.top", reading: "pelvis_turn", at: "top", unit: "deg" };
const found = (said: Partial<Against>): Against => ({
  column: TURN.column,
  base: 30,
  changed: 37,
  by: 7,
  low: 4,
  high: 10,
  sure: 0.999,
  p: 2 / 70,
  rarest: 2 / 70,
  verdict: "real",
  more: 0,
  ...said,
});
const step = (said: Partial<Step>): Step => ({
  changed: "Narrower stance",
  went_back: false,
  drifted: [],
  strikes: [],
  columns: [],
  ...said,
});

test("a difference is said with its error, and how seldom chance deals it", () => {
  expect(byWords(found({}), "deg", "cm")).toBe("+7 ± 3°");
  expect(verdictWords(found({}))).toBe("real, more than 99 % sure: so far apart by chance once in 35 times");
});

test("too few tries never make it real, and it is said how many would", () => {
  const few = found({ verdict: "seems", p: null, rarest: 0.1, more: 1 });
  expect(verdictWords(few)).toContain("once in 10 times at best; one more try each way would settle it");
  expect(verdictWords(found({ verdict: "unsure", more: 2 }))).toBe(
    "cannot be told yet; 2 more tries each way would settle it",
  );
  expect(verdictWords(found({ verdict: "unsure", more: 0 }))).toContain("would not settle it");
});

test("before it is believed one goes back once, and a base line that moved is named", () => {
  const real = step({ columns: [found({})] });
  expect(cautionWords(real, [TURN])).toContain("Go back once");
  expect(cautionWords({ ...real, went_back: true }, [TURN])).toBe("");
  expect(cautionWords(step({ columns: [found({ verdict: "unsure" })] }), [TURN])).toBe("");
  const drifted = step({ went_back: true, drifted: [TURN.column] });
  expect(cautionWords(drifted, [TURN])).toContain("moved by themselves meanwhile (Pelvis turn, top)");
});

test("a mat that does not lie where it was laid is said of the tries at which it does not", () => {
  const tried = (...mats: ("laid" | "found" | "moved" | null)[]) =>
    ({ films: mats.map((mat) => ({ view: "face_on", name: "", gates: [], mat })) }) as unknown as Try;
  expect(movedWords([tried("laid"), tried("found"), tried(null)])).toBeNull();
  expect(movedWords([tried("laid"), tried("moved", "found")])).toMatch(/^At try 2 the mat was not found/);
  expect(movedWords([tried("laid"), tried("moved"), tried("moved")])).toMatch(/^At tries 2, 3 the mat/);
});
