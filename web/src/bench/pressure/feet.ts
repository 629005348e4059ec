import type { OnFloor } from "../../drawn/floorLayout";
import type { Point } from "../../drawn/stageView";

export type FootSide = "lead" | "trail";
export const FEET: readonly FootSide[] = ["lead", "trail"];

/** A place on the floor, metres: `t` toward the target, `b` toward the ball. */
export interface Place {
  t: number;
  b: number;
}

/** A shoe on the floor by the middles of its four edges. */
export interface Foot {
  heel: Place;
  toe: Place;
  inner: Place;
  outer: Place;
}

export type Feet = Record<FootSide, Foot>;

const WIDE = 0.36; // of a shoe's length, where only heel and toe are known; common practice, no source
// Feet that nobody has marked, metres and degrees: only to have something to lay a path on.
const [LENGTH, APART, FLARE] = [0.29, 0.44, { lead: 20, trail: 10 }];

/** The shoes as they stood at address; null where heel and toe of both are not known. */
export function feetSeen(marks: OnFloor[]): Feet | null {
  const at = (name: string): Place | undefined =>
    marks.find((mark) => mark.name === name && mark.at === "address");
  const foot = (side: FootSide): Foot | null => {
    const [heel, toe] = [at(`${side}_heel`), at(`${side}_toe`)];
    if (!heel || !toe) return null;
    const plain = footAt(heel, toe, side);
    const [inner, outer] = [at(`${side}_foot_inner`), at(`${side}_foot_outer`)];
    return inner && outer ? { heel, toe, inner, outer } : plain;
  };
  const [lead, trail] = [foot("lead"), foot("trail")];
  return lead && trail ? { lead, trail } : null;
}

/** Feet of no particular player. */
export function plainFeet(): Feet {
  const foot = (side: FootSide): Foot => {
    const turn = (FLARE[side] * Math.PI) / 180;
    const way = side === "lead" ? 1 : -1;
    const heel = { t: (way * APART) / 2, b: 0 };
    const toe = {
      t: heel.t + way * LENGTH * Math.sin(turn),
      b: LENGTH * Math.cos(turn),
    };
    return footAt(heel, toe, side);
  };
  return { lead: foot("lead"), trail: foot("trail") };
}

function footAt(heel: Place, toe: Place, side: FootSide): Foot {
  const middle = { t: (heel.t + toe.t) / 2, b: (heel.b + toe.b) / 2 };
  // Across a shoe that points to the ball lies the target; a lead foot's outer edge is the target's.
  const half = ((side === "lead" ? 1 : -1) * WIDE) / 2;
  const across = { t: (toe.b - heel.b) * half, b: -(toe.t - heel.t) * half };
  return {
    heel,
    toe,
    inner: { t: middle.t - across.t, b: middle.b - across.b },
    outer: { t: middle.t + across.t, b: middle.b + across.b },
  };
}

/** Where in a shoe: heel 0 to toe 1, inner edge 0 to outer edge 1. */
export function placeIn(foot: Foot, toe: number, outer: number): Place {
  const across = outer - 0.5;
  const along = (part: "t" | "b") =>
    foot.heel[part] +
    toe * (foot.toe[part] - foot.heel[part]) +
    across * (foot.outer[part] - foot.inner[part]);
  return { t: along("t"), b: along("b") };
}

/** What a plate felt on one frame; null where it does not tell. */
export interface FeltAt {
  share: number | null; // of the force, under the lead foot
  lead: [toe: number, outer: number] | null;
  trail: [toe: number, outer: number] | null;
}

/** Where the pressure of both feet together is centred: each foot's centre by its share of the force. */
export function wholePlace(feet: Feet, { share, lead, trail }: FeltAt): Place | null {
  if (share === null) return null;
  const parts = [
    { weight: share, place: lead && placeIn(feet.lead, ...lead) },
    { weight: 1 - share, place: trail && placeIn(feet.trail, ...trail) },
  ];
  // A foot that is barely stood on has no centre worth telling, and moves the whole by as little.
  const known = parts.flatMap(({ weight, place }) => (place ? [{ weight, place }] : []));
  const sum = known.reduce((all, { weight }) => all + weight, 0);
  if (sum < 0.9) return null;
  const mean = (part: "t" | "b") =>
    known.reduce((all, { weight, place }) => all + weight * place[part], 0) / sum;
  return { t: mean("t"), b: mean("b") };
}

/** Lays feet on a picture as the floor plan lies: the ball up, the target to the left of a right-hander. */
export function layFeet(feet: Feet, left: boolean, width: number, height: number, pad: number) {
  const all = FEET.flatMap((side) => Object.values(feet[side]) as Place[]);
  const [t0, t1] = [Math.min(...all.map(({ t }) => t)), Math.max(...all.map(({ t }) => t))];
  const [b0, b1] = [Math.min(...all.map(({ b }) => b)), Math.max(...all.map(({ b }) => b))];
  const per = Math.min((width - 2 * pad) / (t1 - t0), (height - 2 * pad) / (b1 - b0));
  const way = left ? 1 : -1;
  return ({ t, b }: Place): Point => ({
    x: width / 2 + way * (t - (t0 + t1) / 2) * per,
    y: height / 2 - (b - (b0 + b1) / 2) * per,
  });
}

/** A line through points, broken where there is none. */
export function brokenLine(points: (Point | null)[]): string {
  let line = "";
  let on = false;
  for (const point of points) {
    if (point) line += `${on ? "L" : "M"}${point.x.toFixed(1)} ${point.y.toFixed(1)}`;
    on = point !== null;
  }
  return line;
}
