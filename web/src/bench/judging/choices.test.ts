import { describe, expect, it } from "vitest";
import { focusOn, pinned, pins, suggested, withChoices } from "./choices";
import type { Finding, Judgement } from "./verdict";

const drill = (id: string, more: Partial<Finding["drills"][number]> = {}) => ({
  id,
  name: id,
  dose: "ten",
  barred: false,
  held: false,
  cautions: [],
  ...more,
});
const finding = (fault: string, more: Partial<Finding> = {}) =>
  ({
    fault,
    verdict: "shown",
    active: true,
    decided: null,
    drills: [],
    goal: null,
    phrase: "",
    ...more,
  }) as Finding;
const judgement = (findings: Finding[], focus: string[]) =>
  ({
    findings,
    focus: focus.map((fault) => ({ fault, why: "", cautions: [] })),
    plan: null,
  }) as unknown as Judgement;

describe("what is chosen at Judge", () => {
  it("stands on the screen while it is on its way", () => {
    const before = judgement([finding("sways"), finding("steep")], ["sways"]);
    const after = withChoices(before, [
      {
        kind: "decision",
        swingId: "1",
        fault: "sways",
        said: { decision: "rejected", reason: "By eye" } as never,
      },
      { kind: "plan", swingId: "1", plan: { focus: [] } },
    ]);
    expect(after.findings[0]).toMatchObject({
      active: false,
      decided: { decision: "rejected", reason: "By eye" },
    });
    expect(after.findings[1]?.active).toBe(true);
    expect(pins(after)).toEqual({ faults: [], chosen: true });
    const back = withChoices(after, [
      { kind: "decision", swingId: "1", fault: "sways", said: { decision: null } as never },
    ]);
    expect(back.findings[0]).toMatchObject({ active: true, decided: null });
  });

  it("offers the first drill that may be done, own words, and a goal in four weeks", () => {
    const found = finding("sways", {
      phrase: "Turn behind you.",
      drills: [drill("a", { barred: true }), drill("b", { held: true }), drill("c")],
      goal: { reading: "pelvis_sway", at: "top", low: -0.06, high: null, swings: 3, unit: "m" },
    });
    expect(focusOn(found, new Date("2026-11-02T12:00:00Z"))).toEqual({
      fault: "sways",
      words: "Turn behind you.",
      drills: [{ drill: "c", dose: "ten" }],
      goal: { reading: "pelvis_sway", at: "top", low: -0.06, high: null, swings: 3, by: "2026-11-30" },
    });
    expect(suggested(judgement([found], ["sways", "gone"])).focus).toHaveLength(1);
  });

  it("pins at most three, the last in place of another, and unpins", () => {
    const all = ["a", "b", "c", "d"].map((fault) => finding(fault));
    const start = judgement(all, ["a", "b", "c"]);
    const four = pinned(start, all[3] as Finding);
    expect(four.focus.map(({ fault }) => fault)).toEqual(["a", "b", "d"]);
    expect(pinned({ ...start, plan: four }, all[1] as Finding).focus.map(({ fault }) => fault)).toEqual([
      "a",
      "d",
    ]);
  });
});
