import type { Point } from "./stageView";

export const CHALK_TOOLS = ["free", "line", "arrow", "ring", "angle", "text"] as const;
export type ChalkTool = (typeof CHALK_TOOLS)[number];

/** Something drawn on a frame. It belongs to that frame, and lies where it was drawn however the stage is looked at. */
export interface Stroke {
  id: string;
  clip: string;
  frame: number;
  tool: ChalkTool;
  points: Point[]; // of the frame's own picture, px: a way, two ends, middle and rim, end, corner and end, one place
  text?: string | null;
}

/** The angle at a corner between the ways to two ends, degrees from 0 to 180. It is the picture's, not the body's. */
export function angleAt(corner: Point, a: Point, b: Point): number {
  const turn = Math.atan2(b.y - corner.y, b.x - corner.x) - Math.atan2(a.y - corner.y, a.x - corner.x);
  const degrees = Math.abs((turn * 180) / Math.PI) % 360;
  return degrees > 180 ? 360 - degrees : degrees;
}

/** The two barbs of an arrow's head, from its tip. */
export function barbs(from: Point, tip: Point, long: number): [Point, Point] {
  const way = Math.atan2(tip.y - from.y, tip.x - from.x);
  const barb = (turn: number) => ({
    x: tip.x - long * Math.cos(way + turn),
    y: tip.y - long * Math.sin(way + turn),
  });
  return [barb(0.45), barb(-0.45)];
}

const NEAR_PX = 0.8; // a way is kept to within so much

/** A way with no more points than it needs (Ramer, Douglas and Peucker); ends stay. */
export function thinned(points: Point[], near = NEAR_PX): Point[] {
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last || points.length < 3) return points;
  let [far, at] = [0, 0];
  const long = Math.hypot(last.x - first.x, last.y - first.y);
  for (const [i, point] of points.entries()) {
    const off =
      long < 1e-9
        ? Math.hypot(point.x - first.x, point.y - first.y)
        : Math.abs((last.x - first.x) * (first.y - point.y) - (first.x - point.x) * (last.y - first.y)) /
          long;
    if (off > far) [far, at] = [off, i];
  }
  if (far <= near) return [first, last];
  return [...thinned(points.slice(0, at + 1), near).slice(0, -1), ...thinned(points.slice(at), near)];
}
