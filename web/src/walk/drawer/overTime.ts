import type { Schemas } from "../../api/client";

type Curve = Schemas["WalkCurve"];

/** An index before which all values are, and after which none: unbroken stretches of a curve. */
export function stretches(values: (number | null)[]): [first: number, last: number][] {
  const found: [number, number][] = [];
  values.forEach((value, i) => {
    const before = found.at(-1);
    if (value === null) return;
    if (before && before[1] === i - 1) before[1] = i;
    else found.push([i, i]);
  });
  return found;
}

/** What a curve gives at a time from impact, where it has a value within `reach` seconds of it. */
export function valueAt(curve: Curve, at_s: number, reach = 0.02): { value: number; u95: number } | null {
  let best: number | null = null;
  const away = (i: number) => Math.abs((curve.at_s[i] ?? 0) - at_s);
  curve.values.forEach((value, i) => {
    if (
      value !== null &&
      curve.u95[i] !== null &&
      away(i) <= reach &&
      (best === null || away(i) < away(best))
    )
      best = i;
  });
  if (best === null) return null;
  return { value: curve.values[best] ?? 0, u95: curve.u95[best] ?? 0 };
}
