import type { View } from "./words";

/** Whether a side is square to the target line, and whether a right-hander's target or ball lies right in it. */
export const isSquare = (view: View) => view === "face_on" || view === "from_behind";
export const isRightward = (view: View) => view === "face_on" || view === "down_the_line";

/** The side that is usually filmed beside one: square to the line, or along it. */
export const otherSide = (view: View): View => (isSquare(view) ? "down_the_line" : "face_on");

/** Of some clips the one from a side, or from the opposite one. */
export function clipLike<T extends { view: View }>(clips: T[], view: View): T | undefined {
  return (
    clips.find((clip) => clip.view === view) ?? clips.find((clip) => isSquare(clip.view) === isSquare(view))
  );
}
