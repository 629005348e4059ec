import { describe, expect, it } from "vitest";
import type { SideState } from "../benchState";
import { bothSquared, laidTrouble, overlayView } from "./overlayView";

const PLAYER = {
  foot_x: 600,
  foot_y: 640,
  px_per_m: 260,
  aside_deg: 2,
  above_deg: 3,
  distance_m: 4.4,
  squared: true,
};

function standing(player: Partial<typeof PLAYER> | null, about: { view?: string; mirrored?: boolean } = {}) {
  const clip = { id: "a", view: about.view ?? "face_on", width: 1280, height: 720 };
  const on = { player: player && { ...PLAYER, ...player } };
  const swing = { title: "Wynn Osk" };
  return { clip, swing, mirrored: about.mirrored ?? false, views: { a: on } } as unknown as SideState;
}

describe("one picture over another", () => {
  it("lies on the same foot and at the same size", () => {
    const upper = standing({ foot_x: 500, foot_y: 600, px_per_m: 130 });
    const laid = overlayView(standing({}), upper, { scale: 1, cx: 600, cy: 640, mirrored: false });
    expect(laid).toEqual({ scale: 2, cx: 500, cy: 600, mirrored: false });
    const beside = overlayView(standing({}), upper, { scale: 1, cx: 860, cy: 640, mirrored: false });
    expect(beside?.cx).toBe(630); // a metre from the foot is a metre from the foot
  });
  it("turns a left-hander's picture about the foot", () => {
    const upper = standing({ foot_x: 500 }, { mirrored: true });
    const laid = overlayView(standing({}), upper, { scale: 1, cx: 700, cy: 640, mirrored: false });
    expect(laid?.mirrored).toBe(true);
    expect(laid?.cx).toBe(400);
  });
  it("is refused with its reason where the cameras stood apart, and says what that would do", () => {
    expect(laidTrouble(standing({}), standing({ aside_deg: 5 }), "cm")).toBe("");
    expect(laidTrouble(standing({}), standing({ aside_deg: 14 }), "cm")).toMatch(/12° apart.*5\.3 cm/);
    expect(laidTrouble(standing({}), standing({ distance_m: 6.4 }), "cm")).toContain("much nearer");
    expect(laidTrouble(standing({}), standing({}, { view: "down_the_line" }), "cm")).toContain(
      "different sides",
    );
  });
  it("knows where the angle between the cameras is only what is usual", () => {
    expect(bothSquared(standing({}), standing({}))).toBe(true);
    expect(bothSquared(standing({}), standing({ squared: false }))).toBe(false);
  });
  it("is not done by eye", () => {
    expect(laidTrouble(standing({}), standing(null), "cm")).toContain("Wynn Osk's swing needs a mat");
    expect(overlayView(standing({}), standing(null), { scale: 1, cx: 0, cy: 0, mirrored: false })).toBeNull();
  });
});
