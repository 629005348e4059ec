import type { Point } from "../../../drawn/stageView";
import type { Grip, Hand, Scene, Spot } from "./scene";

/** Puts the mark in hand where the press falls, moves it on with the hand, and asks for the next when it is let go. */
export function putting(scene: Scene, at: Point, name: string): Grip {
  const put = (to: Point) => [{ do: "put" as const, name, place: scene.toPicture(to) }];
  return {
    deeds: [...put(at), { do: "choose", name }],
    hand: { move: put, up: () => [{ do: "next" }] },
  };
}

/** Takes hold of a mark where it is pressed: it goes as far as the hand goes, from the first pixel. */
export function holding(scene: Scene, at: Point, { name, place }: Spot): Grip {
  const from = scene.toPicture(at);
  const hand: Hand = {
    move: (to) => {
      const now = scene.toPicture(to);
      if (to.x === at.x && to.y === at.y) return [];
      return [{ do: "put", name, place: { x: place.x + now.x - from.x, y: place.y + now.y - from.y } }];
    },
    up: () => [],
  };
  return { deeds: [{ do: "choose", name }], hand };
}
