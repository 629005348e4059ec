import type { Point } from "../../../drawn/stageView";
import type { Grip, Scene } from "./scene";

const SHORTEST_PX = 8;

/** Draws along something on the range: from where the hand comes down to where it is let go. */
export function drawing(scene: Scene, at: Point): Grip {
  const from = scene.toRange(at);
  return {
    deeds: [{ do: "stretch", from }],
    hand: {
      move: () => [],
      up: (to) =>
        Math.hypot(to.x - at.x, to.y - at.y) > SHORTEST_PX
          ? [{ do: "line", a: from, b: scene.toRange(to) }]
          : [{ do: "say", words: "Nothing was drawn: press at one end, and let go at the other." }],
    },
  };
}
