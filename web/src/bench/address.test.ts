import { describe, expect, it } from "vitest";
import { placeSearch, readPlace } from "./address";

describe("a place on the bench as an address", () => {
  it("is read as it was written", () => {
    const place = {
      station: "read",
      view: "down_the_line",
      frame: 59,
      reading: { reading: "pelvis_sway", at: "top" },
      beside: "0f3c",
    } as const;
    expect(readPlace(placeSearch(place))).toEqual(place);
    expect(readPlace(placeSearch({ station: "mark", reading: null }))).toEqual({ station: "mark" });
  });

  it("leaves out what no bench has", () => {
    expect(readPlace("?station=shop&view=above&frame=-3&reading=sway")).toEqual({});
    expect(readPlace("?frame=12.5")).toEqual({});
    expect(readPlace("")).toEqual({});
  });
});
