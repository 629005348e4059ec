import { describe, expect, it } from "vitest";
import type { BenchState, Done, SideState } from "../benchState";
import { lastOf, stageOf } from "./steps";

/** A stage with a swing of some clips, one of them shown. */
const stage = (shown: string, ...others: string[]) =>
  ({ clip: { id: shown }, swing: { clips: [shown, ...others].map((id) => ({ id })) } }) as SideState;
const sides = (student?: SideState, reference?: SideState): Pick<BenchState, "sides"> => ({
  sides: { ...(student && { student }), ...(reference && { reference }) },
});

describe("the stage on which something is undone", () => {
  it("is the one that shows the clip, also where both views stand side by side", () => {
    const both = sides(stage("face", "line"), stage("line", "face"));
    expect(stageOf(both, "line")).toBe("reference");
    expect(stageOf(both, "face")).toBe("student");
  });

  it("is the swing's own where its other view was put away, and never another swing's", () => {
    expect(stageOf(sides(stage("face", "line"), stage("model")), "line")).toBe("student");
    expect(stageOf(sides(stage("face"), stage("model")), "gone")).toBeUndefined();
  });
});

describe("a step back", () => {
  const step = (gesture: string, together?: string) => ({ gesture, together }) as Done;

  it("takes what was done at once back at once, the last first", () => {
    const steps = [step("a"), step("b", "look"), step("c", "look"), step("d", "look")];
    expect(lastOf(steps).map(({ gesture }) => gesture)).toEqual(["d", "c", "b"]);
    expect(lastOf(steps.slice(0, 1)).map(({ gesture }) => gesture)).toEqual(["a"]);
    expect(lastOf([step("a", "x"), step("b", "y")]).map(({ gesture }) => gesture)).toEqual(["b"]);
    expect(lastOf([])).toEqual([]);
  });
});
