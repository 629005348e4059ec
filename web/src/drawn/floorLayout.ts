import type { Schemas } from "../api/client";
import type { Point } from "./stageView";

type Side = Schemas["WalkClip"]["whose"];

/** A mark seen from above at a checkpoint, metres. */
export interface OnFloor {
  name: string;
  at: string;
  t: number;
  b: number;
}

export const WIDTH = 284;
export const HEIGHT = 236;
const PAD = 16;
const TOP = 26; // room for the ball
export const BALL_Y = 18;
export const SIDES = ["reference", "student"] as const;

export interface Layout {
  at: (t: number, b: number) => Point;
}

/** As the clock is read: the ball up at 12, the target at 9, which is mirrored for a left-hander. */
export function layOut(plans: Partial<Record<Side, { marks: OnFloor[] }>>, left: boolean): Layout | null {
  // The ball lies so far ahead that it would make the shoes small: it is told at the plate's edge.
  const marks = SIDES.flatMap((side) => plans[side]?.marks ?? []).filter(({ name }) => name !== "ball");
  if (!marks.some((mark) => mark.name.endsWith("toe"))) return null;
  const t = marks.map((mark) => mark.t);
  const b = marks.map((mark) => mark.b);
  const [t0, t1, b0, b1] = [Math.min(...t), Math.max(...t), Math.min(...b) - 0.02, Math.max(...b)];
  const per = Math.min((WIDTH - 2 * PAD) / (t1 - t0), (HEIGHT - TOP - 2 * PAD) / (b1 - b0));
  const way = left ? 1 : -1;
  return {
    at: (along, toBall) => ({
      x: WIDTH / 2 + way * (along - (t0 + t1) / 2) * per,
      y: (HEIGHT + TOP) / 2 - (toBall - (b0 + b1) / 2) * per,
    }),
  };
}
