import type { Schemas } from "../../api/client";
import type { View } from "../../drawn/stageView";
import { isRightward } from "../../sides";
import { number, type Units, unitSign } from "../../units";
import { onOf, type SideState } from "../benchState";

type Player = Schemas["InPictureOut"];

// From farther apart, what lies nearer or farther than the feet moves by more than a check of a hip would forgive.
const FARTHEST_DEG = 6;
const FARTHEST_OFF = 1.3; // of each other's distance
const DEPTH_M = 0.25; // of hips and hands before or behind the feet

/** Why one picture cannot be laid over the other; empty where it can. */
export function laidTrouble(lower: SideState, upper: SideState, units: Units): string {
  if (lower.clip.view !== upper.clip.view) return "They were filmed from different sides.";
  const a = onOf(lower).player;
  const b = onOf(upper).player;
  if (!a || !b) {
    const whose =
      !a && !b ? "Both swings need" : `${a ? upper.swing.title : lower.swing.title}'s swing needs`;
    return `${whose} a mat or a known length, and the heels marked at address: else foot and size would be by eye.`;
  }
  const apart = degreesApart(a, b);
  if (apart > FARTHEST_DEG) {
    const moved = DEPTH_M * Math.tan((apart * Math.PI) / 180);
    return (
      `The cameras stood ${Math.round(apart)}° apart about the player: laid over, a hip would seem to move by ` +
      `${number(moved, "m", units)} ${unitSign("m", units)} and more.`
    );
  }
  const farther = Math.max(a.distance_m, b.distance_m) / Math.min(a.distance_m, b.distance_m);
  if (farther > FARTHEST_OFF)
    return "One camera stood much nearer than the other: near things are too large in it.";
  return "";
}

/** Whether a mat tells in both how square the camera stood; else their angles are only what is usual. */
export const bothSquared = (lower: SideState, upper: SideState): boolean =>
  Boolean(onOf(lower).player?.squared && onOf(upper).player?.squared);

/** The angle at the player between two cameras, in the player's own axes: hands make no difference. */
const degreesApart = (a: Player, b: Player): number =>
  Math.hypot(a.aside_deg - b.aside_deg, a.above_deg - b.above_deg);

/** How the upper swing's picture lies on the stage of the lower one: on the same foot and at the same size. */
export function overlayView(lower: SideState, upper: SideState, view: View): View | null {
  const a = onOf(lower).player;
  const b = onOf(upper).player;
  if (!a || !b) return null;
  const larger = a.px_per_m / b.px_per_m;
  const opposite = isRightward(lower.clip.view) !== isRightward(upper.clip.view);
  const turned = (lower.mirrored !== upper.mirrored) === opposite ? 1 : -1;
  return {
    scale: view.scale * larger,
    cx: b.foot_x + (turned * (view.cx - a.foot_x)) / larger,
    cy: b.foot_y + (view.cy - a.foot_y) / larger,
    mirrored: view.mirrored !== turned < 0,
  };
}
