import { describe, expect, it } from "vitest";
import { lengthFrom, lengthOver, lengthText, lengthTrouble } from "./lengths";

describe("a length as people write it", () => {
  it.each([
    ["122", 1.22],
    ["122,5", 1.225],
    [" 122.5 cm", 1.225],
    ["1.22 m", 1.22],
    ["1220mm", 1.22],
    ["48 in", 1.2192],
    ['48"', 1.2192],
    ["5'9", 1.7526],
    ["5′ 9½″", 1.7653],
    ["5 ft 9 1/2 in", 1.7653],
    ["5 feet", 1.524],
    ["5'9''", 1.7526],
    ["½ in", 0.0127],
  ])("%s in centimetres", (text, length_m) => {
    expect(lengthFrom(text, "cm")).toBeCloseTo(length_m, 9);
  });

  it("takes a bare number in the unit in use", () => {
    expect(lengthFrom("48", "in")).toBeCloseTo(1.2192, 9);
    expect(lengthFrom("4.2", "cm", "large")).toBeCloseTo(4.2, 9);
    expect(lengthFrom("14", "in", "large")).toBeCloseTo(4.2672, 9);
  });

  it.each(["", "tall", "1.2.3", "5 6", "9 in 5 ft", "-3", "1 m 20 cm x", "5'9'3"])("refuses %j", (text) => {
    expect(lengthFrom(text, "cm")).toBeNull();
  });

  it("writes what it reads again", () => {
    for (const units of ["cm", "in"] as const)
      for (const scale of ["small", "person", "large"] as const)
        for (let m = 0.3; m < 6; m += 0.037) {
          const again = lengthFrom(lengthText(m, units, scale), units, scale) ?? 0;
          expect(Math.abs(again - m)).toBeLessThan(scale === "small" ? 0.0013 : 0.0064);
        }
    expect(lengthText(1.7653, "in", "large")).toBe("5′ 9½″");
    expect(lengthText(1.8288, "in", "large")).toBe("6′ 0″");
  });

  it("keeps a length that only looks as if it were another", () => {
    expect(lengthOver("122.0", 1.2203, "cm")).toBe(1.2203);
    expect(lengthOver("5′ 9½″", 1.7661, "in", "large")).toBe(1.7661);
    expect(lengthOver("123", 1.2203, "cm")).toBeCloseTo(1.23, 9);
  });

  it("says what would do", () => {
    expect(lengthTrouble(4, 0.5, 3, "cm")).toBe("A length from 50 to 300 cm, such as 122 or 1.22 m.");
    expect(lengthTrouble(null, 1, 30, "in", "large")).toContain("from 3 to 98 ft");
    expect(lengthTrouble(1, 0.5, 3, "cm")).toBe("");
  });
});
