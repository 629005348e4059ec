import { describe, expect, it } from "vitest";
import { bandWords, clashesOf, idFrom } from "./words";

describe("the book in words", () => {
  it("says a band with its ends in the unit in use", () => {
    const band = { reading: "pelvis_sway", at: "top", low: -0.06, high: -0.005 } as never;
    expect(bandWords(band, "cm", { pelvis_sway: "m" })).toBe("Pelvis sway top: −6.0 to −0.5 cm");
    const open = { reading: "pelvis_turn", at: "top", low: 38, clubs: ["wedge"] } as never;
    expect(bandWords(open, "in", { pelvis_turn: "deg" })).toBe("Pelvis turn top: at least +38° (wedge)");
  });

  it("finds the clashes of what was chosen", () => {
    const clash = { id: "a", text: "No.", options: [{ dispute: "heel", option: "down" }] } as never;
    expect(clashesOf([clash], { heel: "down" })).toHaveLength(1);
    expect(clashesOf([clash], { heel: "free" })).toHaveLength(0);
  });

  it("makes an id that no other page has", () => {
    expect(idFrom("Marens Tür, 2", [])).toBe("marens_tur_2");
    expect(idFrom("Centred", ["centred", "centred_2"])).toBe("centred_3");
    expect(idFrom("9!", [])).toMatch(/^[a-z][a-z0-9_]+$/);
  });
});
