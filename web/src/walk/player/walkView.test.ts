import { describe, expect, it } from "vitest";
import { toPicture } from "../../drawn/stageView";
import { walkView } from "./walkView";

const picture = { width: 720, height: 1280 };

describe("a walk's stage on another screen", () => {
  it("shows what was shown on a stage of the same shape", () => {
    const showing = { cx: 300, cy: 500, high: 400, wide: 360, mirrored: true };
    expect(walkView(showing, picture, { width: 180, height: 200 })).toEqual({
      scale: 0.5,
      cx: 300,
      cy: 500,
      mirrored: true,
    });
  });

  it("keeps most of the width on a narrow one, and never shows what lies beyond the picture", () => {
    const showing = { cx: 360, cy: 640, high: 800, wide: 700, mirrored: false };
    const narrow = { width: 180, height: 400 };
    const view = walkView(showing, picture, narrow);
    const corners = [toPicture({ x: 0, y: 0 }, view, narrow), toPicture({ x: 180, y: 400 }, view, narrow)];
    expect((corners[1]?.x ?? 0) - (corners[0]?.x ?? 0)).toBeCloseTo(0.62 * 700);
    const wide = walkView({ ...showing, high: 1280, wide: 3000 }, picture, narrow);
    expect(toPicture({ x: 90, y: 0 }, wide, narrow).y).toBeGreaterThanOrEqual(-1e-6);
    expect(toPicture({ x: 90, y: 400 }, wide, narrow).y).toBeLessThanOrEqual(1280 + 1e-6);
  });
});
