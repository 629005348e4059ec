import { describe, expect, it } from "vitest";
import { brokenLine, feetSeen, layFeet, placeIn, plainFeet, wholePlace } from "./feet";

const mark = (name: string, t: number, b: number) => ({ name, at: "address", t, b });
const STRAIGHT = [
  mark("lead_heel", 0.2, 0),
  mark("lead_toe", 0.2, 0.3),
  mark("trail_heel", -0.2, 0),
  mark("trail_toe", -0.2, 0.3),
];

describe("places under the feet", () => {
  it("tells toe from heel and outer from inner, on either foot", () => {
    const feet = feetSeen(STRAIGHT);
    if (!feet) throw new Error("there are feet");
    expect(placeIn(feet.lead, 0.5, 0.5)).toEqual({ t: 0.2, b: 0.15 });
    expect(placeIn(feet.lead, 0, 1).t).toBeGreaterThan(0.2); // the target's side
    expect(placeIn(feet.trail, 0, 1).t).toBeLessThan(-0.2);
    expect(placeIn(feet.trail, 1, 0.5).b).toBeCloseTo(0.3);
  });

  it("takes the marked edges before a usual width, and no foot without its heel", () => {
    const edges = [mark("lead_foot_inner", 0.1, 0.15), mark("lead_foot_outer", 0.3, 0.15)];
    expect(feetSeen([...STRAIGHT, ...edges])?.lead.outer.t).toBe(0.3);
    expect(feetSeen(STRAIGHT.slice(1))).toBeNull();
  });

  it("puts the whole between the feet by their shares", () => {
    const feet = plainFeet();
    const middle: [number, number] = [0.5, 0.5];
    const whole = (share: number) => wholePlace(feet, { share, lead: middle, trail: middle });
    const even = whole(0.5);
    expect(even?.t).toBeCloseTo((placeIn(feet.lead, 0.5, 0.5).t + placeIn(feet.trail, 0.5, 0.5).t) / 2);
    expect(whole(0.8)?.t ?? 0).toBeGreaterThan(even?.t ?? 0);
    expect(wholePlace(feet, { share: null, lead: middle, trail: middle })).toBeNull();
    // A foot that carries a third is not left out of it; one that carries nothing is.
    expect(wholePlace(feet, { share: 0.66, lead: middle, trail: null })).toBeNull();
    expect(wholePlace(feet, { share: 0.97, lead: middle, trail: null })).toEqual(
      placeIn(feet.lead, ...middle),
    );
  });

  it("mirrors for a left-hander, and breaks a line where nothing is felt", () => {
    const feet = plainFeet();
    const lead = placeIn(feet.lead, 0.5, 0.5);
    expect(layFeet(feet, false, 200, 100, 5)(lead).x).toBeLessThan(100);
    expect(layFeet(feet, true, 200, 100, 5)(lead).x).toBeGreaterThan(100);
    const at = { x: 1, y: 2 };
    expect(brokenLine([at, at, null, at])).toBe("M1.0 2.0L1.0 2.0M1.0 2.0");
  });
});
