import { expect, test } from "vitest";
import { sectors } from "./floorSectors";
import type { Floor, Reading } from "./reading";

const mark = (name: string, at: string, t: number, b: number) =>
  ({ name, at, t, b, u95_t: 0, u95_b: 0 }) as Floor["marks"][number];
const plan: Floor = {
  cameras: [],
  marks: [
    mark("trail_heel", "address", -0.2, 0),
    mark("trail_toe", "address", -0.3, 0.24),
    mark("lead_hip", "top", 0.1, -0.05),
    mark("lead_hip", "impact", 0.2, -0.11),
  ],
};
const asked = (reading: string, at: string, low: number | null, high: number | null) =>
  [{ reading, at, band: { low, high } }] as unknown as Reading[];

test("where the value is an end of the band, the thing lies on that end", () => {
  const flare = (Math.atan2(0.1, 0.24) * 180) / Math.PI; // outward: away from the target
  const [found] = sectors(plan, asked("foot_flare_trail", "address", flare, 40));
  expect(found?.ends[0]?.t).toBeCloseTo(-0.3);
  expect(found?.ends[0]?.b).toBeCloseTo(0.24);
  const behind = (Math.atan2(0.06, 0.1) * 180) / Math.PI; // behind the line to the target
  const [hip] = sectors(plan, asked("hip_travel", "impact", 5, behind));
  expect(hip?.ends.at(-1)?.t).toBeCloseTo(0.2);
  expect(hip?.ends.at(-1)?.b).toBeCloseTo(-0.11);
});

test("an open band is drawn some way, and what is not known is not drawn", () => {
  const [open] = sectors(plan, asked("foot_flare_trail", "address", 20, null));
  expect(open?.ends).toHaveLength(9);
  expect(sectors(plan, asked("foot_flare_lead", "address", 20, 30))).toEqual([]);
  expect(sectors(plan, [])).toEqual([]);
});
