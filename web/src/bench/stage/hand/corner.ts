import type { Point } from "../../../drawn/stageView";
import { MAT } from "../../benchState";
import type { Grip, Scene } from "./scene";

/** Clicks one more corner of the mat. */
export function clicking(scene: Scene, at: Point): Grip {
  return { deeds: [{ do: "add corner", place: scene.toRange(at) }], hand: null };
}

/** Takes hold of a corner of the mat: it goes where the hand goes. */
export function turning(scene: Scene, index: number): Grip {
  return {
    deeds: [{ do: "choose", name: MAT }],
    hand: { move: (to) => [{ do: "corner", index, place: scene.toRange(to) }], up: () => [] },
  };
}
