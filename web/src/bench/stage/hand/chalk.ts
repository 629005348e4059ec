import { type ChalkTool, type Stroke, thinned } from "../../../drawn/chalk";
import type { Point } from "../../../drawn/stageView";
import type { Grip, Scene } from "./scene";

/** Draws in chalk: along the hand, or from where it comes down to where it is let go. */
export function chalking(scene: Scene, at: Point, draws: ChalkTool): Grip {
  const from = scene.toPicture(at);
  if (draws === "text") return { deeds: [{ do: "write", at, place: from }], hand: null };
  const way = [from];
  const draw = (points: Point[], ended: boolean) => [{ do: "chalk" as const, draws, points, ended }];
  return {
    deeds: draw([from], false),
    hand: {
      move: (to) => {
        const now = scene.toPicture(to);
        if (draws !== "free") return draw([from, now], false);
        way.push(now);
        return draw([...way], false);
      },
      up: (to) => draw(draws === "free" ? thinned(way) : [from, scene.toPicture(to)], true),
    },
  };
}

const SHORTEST_PX = 3;

/**
 * The strokes after a hand has drawn on. An angle is drawn in two goes: from one end to its corner, then where the
 * other end is. A stroke that is too short to be one was a slip.
 */
export function chalkedOn(
  strokes: Stroke[],
  drawn: Pick<Stroke, "id" | "clip" | "frame" | "tool" | "points">,
  ended: boolean,
): Stroke[] {
  const open = strokes.at(-1);
  if (drawn.tool === "angle" && open?.tool === "angle" && open.id !== drawn.id && isOpen(open)) {
    const here = open.clip === drawn.clip && open.frame === drawn.frame;
    const end = drawn.points.at(-1);
    if (here && end) {
      // The corner stays; the hand turns the second side until it is let go.
      const [a, corner] = open.points;
      if (a && corner) {
        const { text: _, ...closed } = { ...open, points: [a, corner, end] };
        return [...strokes.slice(0, -1), ended ? closed : { ...closed, text: OPEN }];
      }
    }
  }
  const others = strokes.filter(({ id }) => id !== drawn.id);
  const [first, last] = [drawn.points[0], drawn.points.at(-1)];
  const long = first && last ? Math.hypot(last.x - first.x, last.y - first.y) : 0;
  if (ended && drawn.points.length < 3 && long < SHORTEST_PX) return others;
  return [...others, { ...drawn, ...(drawn.tool === "angle" ? { text: OPEN } : {}) }];
}

const OPEN = "…"; // an angle whose second side is not drawn yet
const isOpen = ({ text }: Stroke) => text === OPEN;
