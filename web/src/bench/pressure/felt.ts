import type { Schemas } from "../../api/client";
import type { FeltAt, FootSide } from "./feet";

export const SHARE = "pressure_lead_share";
export const PLACES = ["cop_lead_toe", "cop_lead_outer", "cop_trail_toe", "cop_trail_outer"] as const;
/** What the two ends of each are called. */
export const ENDS: Record<string, [string, string]> = {
  [SHARE]: ["trail", "lead"],
  cop_lead_toe: ["heel", "toe"],
  cop_lead_outer: ["inner", "outer"],
  cop_trail_toe: ["heel", "toe"],
  cop_trail_outer: ["inner", "outer"],
};
export const FELT: string[] = [SHARE, ...PLACES];

/** What a plate felt on every frame of a course, and how far each place may be off. */
export interface FeltFrames {
  frames: number[];
  felt: FeltAt[];
  off: Record<FootSide, ([toe: number, outer: number] | null)[]>;
}

/** From a course's curves; null where the plate tells no share. */
export function feltOn(course: Schemas["CourseOut"]): FeltFrames | null {
  const of = (reading: string) => course.curves.find((curve) => curve.reading === reading);
  const share = of(SHARE);
  if (!share) return null;
  const pair = (side: FootSide, column: "values" | "u95", i: number): [number, number] | null => {
    const toe = of(`cop_${side}_toe`)?.[column][i];
    const outer = of(`cop_${side}_outer`)?.[column][i];
    return toe == null || outer == null ? null : [toe, outer];
  };
  return {
    frames: course.frames,
    felt: course.frames.map((_, i) => ({
      share: share.values[i] ?? null,
      lead: pair("lead", "values", i),
      trail: pair("trail", "values", i),
    })),
    off: {
      lead: course.frames.map((_, i) => pair("lead", "u95", i)),
      trail: course.frames.map((_, i) => pair("trail", "u95", i)),
    },
  };
}
