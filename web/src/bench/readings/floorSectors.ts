import type { Floor, Reading } from "./reading";

/** Where a band lies on the floor: between two ways from a place, as far as the thing itself reaches. */
export interface Sector {
  reading: string;
  from: { t: number; b: number };
  ends: { t: number; b: number }[]; // along the arc, from the band's low end to its high one
}

const STEPS = 8;
const BEYOND_DEG = 10; // of a band that is open at one end so much is drawn

/** What an angle is taken about, what lies at its end, and the way (toward the target, toward the ball) it means. */
const ANGLES: [string, string, Spot, Spot, (angle: number) => [number, number]][] = [
  [
    "foot_flare_lead",
    "address",
    ["lead_heel", "address"],
    ["lead_toe", "address"],
    (a) => [Math.sin(a), Math.cos(a)],
  ],
  [
    "foot_flare_trail",
    "address",
    ["trail_heel", "address"],
    ["trail_toe", "address"],
    (a) => [-Math.sin(a), Math.cos(a)],
  ],
  ["hip_travel", "impact", ["lead_hip", "top"], ["lead_hip", "impact"], (a) => [Math.cos(a), -Math.sin(a)]],
];
type Spot = [name: string, at: string];

/** The bands of the angles that the plan shows. */
export function sectors(plan: Floor, readings: Reading[]): Sector[] {
  const place = ([name, at]: Spot) => plan.marks.find((mark) => mark.name === name && mark.at === at);
  return ANGLES.flatMap(([id, at, pivot, end, way]) => {
    const band = readings.find((each) => each.reading === id && each.at === at)?.band;
    const [from, to] = [place(pivot), place(end)];
    if (!band || !from || !to) return [];
    const low = band.low ?? (band.high ?? 0) - BEYOND_DEG;
    const high = band.high ?? low + BEYOND_DEG;
    const reach = Math.hypot(to.t - from.t, to.b - from.b);
    const ends = Array.from({ length: STEPS + 1 }, (_, i) => {
      const [t, b] = way(((low + ((high - low) * i) / STEPS) * Math.PI) / 180);
      return { t: from.t + reach * t, b: from.b + reach * b };
    });
    return [{ reading: id, from, ends }];
  });
}
