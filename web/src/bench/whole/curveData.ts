import type { RulerLayout } from "../rule/rulerLayout";
import type { Course } from "./useCourse";

/** A curve laid on the rule: x in pixels; null where a frame lacks its marks. */
export interface LaidCurve {
  x: number[];
  y: (number | null)[];
  low: (number | null)[];
  high: (number | null)[];
  alone: number[]; // indices of values with no value on the frames beside them
  frames: number[];
}

export function layCurve({ course, line }: Course, reading: string, layout: RulerLayout): LaidCurve | null {
  const { frames } = course;
  const curve = course.curves.find((each) => each.reading === reading);
  if (!curve || !line) return null;
  const { values, u95 } = curve;
  const bound = (i: number, way: 1 | -1) => {
    const value = values[i];
    const error = u95[i];
    return value == null || error == null ? null : value + way * error;
  };
  return {
    x: frames.map((frame) => layout.xOf(line, line.times[frame] ?? 0)),
    y: values,
    low: values.map((_, i) => bound(i, -1)),
    high: values.map((_, i) => bound(i, 1)),
    alone: values.flatMap((value, i) =>
      value !== null && values[i - 1] == null && values[i + 1] == null ? [i] : [],
    ),
    frames,
  };
}

/** Index of the value that belongs to a place on the rule, if one is near enough. */
export function indexAt(curve: LaidCurve, x: number, reach = 3): number | null {
  let best: number | null = null;
  for (let i = 0; i < curve.x.length; i += 1) {
    const away = Math.abs((curve.x[i] ?? 0) - x);
    if (curve.y[i] !== null && away <= reach && (best === null || away < Math.abs((curve.x[best] ?? 0) - x)))
      best = i;
  }
  return best;
}
