import type { Point } from "./stageView";

/** Each frame's homography from the still picture, row by row, its ninth entry 1; null: the camera stood. */
export type Motion = number[][] | null;

/** A point of the still picture, such as a mat's corner, as it lies in a frame's picture. */
export function moved(motion: Motion, frame: number, point: Point): Point {
  const row = motion?.[frame];
  return row ? through(row, point) : point;
}

/** A frame's point in the still picture. */
export function still(motion: Motion, frame: number, point: Point): Point {
  const row = motion?.[frame];
  return row ? through(inverse(row), point) : point;
}

function through(row: number[], { x, y }: Point): Point {
  const [a = 1, b = 0, c = 0, d = 0, e = 1, f = 0, g = 0, h = 0, i = 1] = row;
  const scale = g * x + h * y + i;
  return { x: (a * x + b * y + c) / scale, y: (d * x + e * y + f) / scale };
}

function inverse(row: number[]): number[] {
  const [a = 1, b = 0, c = 0, d = 0, e = 1, f = 0, g = 0, h = 0] = row;
  return [
    e - f * h,
    c * h - b,
    b * f - c * e,
    f * g - d,
    a - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    a * e - b * d,
  ];
}
