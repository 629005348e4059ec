import type { Point, View } from "../../drawn/stageView";
import { isRightward } from "../../sides";
import { markAt, onOf, pegsOf, type SideState } from "../benchState";

/** Pixels of the picture to a metre on the known length, or null where there is none. */
function pixelsPerMetre(side: SideState): number | null {
  const known = onOf(side).calibration;
  return known?.length_m ? Math.hypot(known.bx - known.ax, known.by - known.ay) / known.length_m : null;
}

/** A point of the picture that does not move in a swing: the trail foot at address, else below the player. */
function anchor(side: SideState): Point {
  const address = pegsOf(onOf(side)).address;
  const foot = address === undefined ? undefined : markAt(side, "trail_foot_outer", address);
  return foot ?? { x: side.clip.width / 2, y: side.clip.height * 0.8 };
}

/**
 * How the upper swing's picture lies on the stage of the lower one: on the same foot and at the same
 * size, as far as both clips have a foot marked and a known length.
 */
export function overlayView(lower: SideState, upper: SideState, view: View): View {
  const under = pixelsPerMetre(lower);
  const over = pixelsPerMetre(upper);
  const larger = under && over ? under / over : lower.clip.height / upper.clip.height;
  const a = anchor(lower);
  const b = anchor(upper);
  const opposite = isRightward(lower.clip.view) !== isRightward(upper.clip.view);
  const turned = (lower.mirrored !== upper.mirrored) === opposite ? 1 : -1;
  return {
    scale: view.scale * larger,
    cx: b.x + (turned * (view.cx - a.x)) / larger,
    cy: b.y + (view.cy - a.y) / larger,
    mirrored: view.mirrored !== turned < 0,
  };
}
