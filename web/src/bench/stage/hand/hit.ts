import type { Point } from "../../../drawn/stageView";
import type { Spot } from "./scene";

export const REACH_PX = 14; // from a mark, within which it is taken hold of
const CHOSEN_PX = 8; // by so much a chosen mark is nearer than it lies
const GROUPED_PX = 3; // and one of the group that lies ready
const ALIKE_PX = 3; // nobody can mean one of two that are so much alike near

const far = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);

/**
 * The marks that a press may mean, the likeliest first: more than one where they lie so close to each other that it
 * cannot be told. What lies over what does not count.
 */
export function meantBy(spots: Spot[], at: Point, chosen: string | null): Spot[] {
  const cost = (spot: Spot) =>
    far(spot.at, at) - (spot.name === chosen ? CHOSEN_PX : spot.grouped ? GROUPED_PX : 0);
  const near = spots.filter((spot) => far(spot.at, at) <= REACH_PX).sort((a, b) => cost(a) - cost(b));
  const [best, ...others] = near;
  if (!best) return [];
  if (best.name === chosen) return [best];
  return [
    best,
    ...others.filter((spot) => cost(spot) - cost(best) <= ALIKE_PX && far(spot.at, best.at) < REACH_PX),
  ];
}

/** The point of a list within reach that is nearest. */
export function nearestOf(points: Point[], at: Point): number | null {
  const [best] = points
    .map((point, index) => ({ index, far: far(point, at) }))
    .filter((each) => each.far <= REACH_PX)
    .sort((a, b) => a.far - b.far);
  return best?.index ?? null;
}

const CLEAR_PX = 34; // about the place that is aimed at, where nothing may lie

/** Where a mark is drawn while another place is aimed at: outside a clear ring about that. */
export function aside(spot: Point, aim: Point, index: number): Point {
  const away = far(spot, aim);
  if (away >= CLEAR_PX) return spot;
  // What lies right under the aim has no way of its own to go: each takes another.
  const turn = away > 0.5 ? Math.atan2(spot.y - aim.y, spot.x - aim.x) : index * 2.4;
  return { x: aim.x + CLEAR_PX * Math.cos(turn), y: aim.y + CLEAR_PX * Math.sin(turn) };
}
