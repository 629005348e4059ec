import { describe, expect, it } from "vitest";
import type { Reading } from "../readings/reading";
import { bySetUp, byStanding } from "./standings";

const reading = (name: string, about: Partial<Reading>): Reading =>
  ({
    reading: name,
    at: "top",
    status: "ok",
    value: 0,
    u95: 1,
    band: { low: 2, high: 4 },
    standing: "inside",
    ...about,
  }) as Reading;

describe("readings as Judge puts them", () => {
  it("begins with those outside, the surest of them first, and ends with those inside", () => {
    const order = byStanding([
      reading("inside", { value: 3 }),
      reading("edge", { standing: "edge", value: 2 }),
      reading("unsure", { standing: "below", value: -1, u95: 3 }),
      reading("open", { standing: "undecided" }),
      reading("sure", { standing: "above", value: 9 }),
      reading("refused", { status: "refused", standing: null, value: null }),
    ]);
    expect(order.map((each) => each.reading)).toEqual(["sure", "unsure", "edge", "open", "inside"]);
  });

  it("tells of the set-up what is not told against a band already", () => {
    const found = bySetUp([
      reading("flare", { at: "address", standing: null, band: null }),
      reading("stance", { at: "address" }),
      reading("sway", { standing: null, band: null }),
      reading("missing", { at: "address", standing: null, status: "refused", value: null }),
    ]);
    expect(found.map((each) => each.reading)).toEqual(["flare"]);
  });
});
