import { describe, expect, it } from "vitest";
import { outOfOrder } from "./putPeg";

describe("a peg set against the order of the swing", () => {
  const pegs = { address: 9, top: 59, impact: 76, lead_heel_up: 40 };

  it("names the checkpoint whose wrong side it would lie on", () => {
    expect(outOfOrder(pegs, "top", 76)).toBe("impact");
    expect(outOfOrder(pegs, "top", 4)).toBe("address");
    expect(outOfOrder(pegs, "finish", 70)).toBe("impact");
    expect(outOfOrder(pegs, "shaft_back", 60)).toBe("top");
  });

  it("has nothing against a peg between its neighbours, nor against where its own was before", () => {
    expect(outOfOrder(pegs, "top", 61)).toBeNull();
    expect(outOfOrder(pegs, "arm_down", 70)).toBeNull();
    expect(outOfOrder({}, "top", 5)).toBeNull();
  });

  it("leaves events their own time", () => {
    expect(outOfOrder(pegs, "lead_heel_up", 100)).toBeNull();
    expect(outOfOrder(pegs, "shaft_back", 41)).toBeNull();
  });
});
