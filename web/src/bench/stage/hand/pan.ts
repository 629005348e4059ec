import type { Point } from "../../../drawn/stageView";
import type { Grip } from "./scene";

/** Takes hold of the picture, and puts down what was chosen. */
export function panning(at: Point): Grip {
  return {
    deeds: [{ do: "choose", name: null }],
    hand: { move: (to) => [{ do: "shift", by: { x: to.x - at.x, y: to.y - at.y } }], up: () => [] },
  };
}
