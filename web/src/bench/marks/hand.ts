import type { SideState } from "../benchState";

/** One standard deviation of a careful click on a 720-line picture, for a hand nobody has tested. */
export const HAND_SD_PX = 1.5;
const REFERENCE_LINES = 720;

/** Pixels of a clip's picture to one of a 720-line picture. */
export function unitPx({ clip }: SideState): number {
  return Math.min(clip.width, clip.height) / REFERENCE_LINES;
}
