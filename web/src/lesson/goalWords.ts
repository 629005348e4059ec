import type { Schemas } from "../api/client";
import { number, type Unit, type Units, withSign } from "../units";
import { type Hand, momentWords, READING_WORDS, SIGNED, sidesOf } from "../words";

type Goal = Pick<Schemas["GoalSent"], "reading" | "at" | "low" | "high" | "unit">;

/** What a reading is of in a student's words, and, where it goes both ways, which way minus and plus go. */
const PLAIN: Record<string, [name: string, minus?: string, plus?: string]> = {
  stance_ratio: ["the width of your stance, of your shoulders"],
  ball_position: ["the ball, from your trail heel to your lead heel"],
  toe_line: ["the line along your toes", "open", "closed"],
  foot_flare_lead: ["your lead foot, turned out"],
  foot_flare_trail: ["your trail foot, turned out"],
  foot_twist_lead: ["your lead foot, since the start", "turned in", "turned out"],
  heel_lift_lead: ["your lead heel, off the floor"],
  heel_lift_trail: ["your trail heel, off the floor"],
  foot_roll_lead: ["your lead shoe", "rolled inward", "rolled outward"],
  foot_roll_trail: ["your trail shoe", "rolled outward", "rolled inward"],
  knee_flex_lead: ["the bend of your lead knee"],
  knee_flex_trail: ["the bend of your trail knee"],
  knee_flex_change_trail: ["your trail knee", "straighter than at the start", "more bent than at the start"],
  knee_height_difference: ["your kneecaps", "higher on the lead side", "higher on the trail side"],
  knee_points_lead: ["your lead knee", "pointing behind the ball", "pointing past the ball"],
  lead_knee_travel_t: ["your lead knee", "away from the target", "toward the target"],
  lead_leg_lean: ["your lead hip over its foot", "behind it", "ahead of it"],
  hip_travel: ["the way of your lead hip, behind the line to the target"],
  pelvis_offset: ["your hips from the middle of your stance", "away from the target", "toward the target"],
  pelvis_sway: ["your hips", "away from the target", "toward the target"],
  pelvis_push: ["your hips", "back from the ball", "toward the ball"],
  pelvis_depth: ["your seat", "behind its place at the start", "off its wall, toward the ball"],
  pelvis_rise: ["your hips", "lower than at the start", "higher than at the start"],
  pelvis_turn: ["your hips", "open to the target", "turned away from the target"],
  pelvis_slant: ["your belt line", "higher on the trail side", "higher on the lead side"],
  trail_hip_gap: ["your trail hip", "outside your shoe", "inside your shoe"],
  sternum_offset: [
    "your breastbone from the middle of your stance",
    "away from the target",
    "toward the target",
  ],
  spine_side_tilt: ["your upper body", "tipped toward the target", "tipped away from the target"],
  shoulder_turn: ["your shoulders", "open to the target", "turned away from the target"],
  shoulder_slant: ["your shoulders", "lower on the lead side", "lower on the trail side"],
  head_travel_t: ["your head", "away from the target", "toward the target"],
  trail_elbow_flex: ["the bend of your trail elbow"],
  tempo: ["the time going back against the time coming down"],
  pressure_lead_share: ["your weight on the lead foot"],
  pressure_peak_trail: ["the most weight on your trail foot"],
  cop_lead_toe: ["the pressure in your lead foot, from heel to toes"],
  cop_trail_toe: ["the pressure in your trail foot, from heel to toes"],
  cop_lead_outer: ["the pressure in your lead foot, from its inner to its outer edge"],
  cop_trail_outer: ["the pressure in your trail foot, from its inner to its outer edge"],
};

/** "At the top, your hips between 6.0 and 0.5 cm away from the target": a goal in its student's words. */
export function goalWords(goal: Goal, units: Units, hand: Hand): string {
  const [name, minus, plus] = PLAIN[goal.reading] ?? [READING_WORDS[goal.reading] ?? goal.reading];
  const words =
    minus && plus
      ? bothWays(goal, (value) => withSign(Math.abs(value), goal.unit, units), minus, plus)
      : rangeWords(goal, goal.unit, units, SIGNED.has(goal.reading));
  const moment = momentWords(goal.at).toLowerCase();
  const when = goal.at === "swing" ? "" : `at ${MOMENTS_WITH_THE.has(goal.at) ? "the " : ""}${moment}, `;
  return sidesOf(`${when}${name} ${words}`, hand);
}

/** How many swings tell whether a goal is reached, where one does not; "" where one does. */
export function checkWords(swings: number | null | undefined): string {
  if (swings === null) return "One day's swings are too unsure to check it: it shows over several.";
  return (swings ?? 1) > 1 ? `A check needs about ${swings} swings of one day.` : "";
}

/** What a reading is of, in a student's words. */
export function nameOf(reading: string, hand: Hand): string {
  return sidesOf(PLAIN[reading]?.[0] ?? READING_WORDS[reading] ?? reading, hand);
}

/** What was read, in the same words: "4.2 cm away from the target". */
export function readWords(reading: string, value: number, unit: Unit, units: Units, hand: Hand): string {
  const [, minus, plus] = PLAIN[reading] ?? [""];
  if (!minus || !plus) return withSign(value, unit, units, SIGNED.has(reading));
  return sidesOf(`${withSign(Math.abs(value), unit, units)} ${value < 0 ? minus : plus}`, hand);
}

const MOMENTS_WITH_THE = new Set(["top", "finish"]);

function bothWays({ low, high }: Goal, said: (value: number) => string, minus: string, plus: string): string {
  const way = (value: number) => (value < 0 ? minus : plus);
  if (low != null && high != null) {
    if (low === 0 || high === 0) return `no more than ${said(low || high)} ${way(low || high)}`;
    if (way(low) !== way(high)) return `between ${said(low)} ${minus} and ${said(high)} ${plus}`;
    const [near, far] = low < 0 ? [high, low] : [low, high];
    return `${said(near)} to ${said(far)} ${way(near)}`;
  }
  const end = low ?? high ?? 0;
  if (end === 0) return `not ${low != null ? minus : plus}`;
  const outward = low != null ? end > 0 : end < 0;
  return `${outward ? "at least" : "no more than"} ${said(end)} ${way(end)}`;
}

/** "between −6.0 and −0.5 cm", "at least 80°". */
export function rangeWords(
  { low, high }: { low?: number | null; high?: number | null },
  unit: Unit,
  units: Units,
  signed: boolean,
): string {
  if (low != null && high != null)
    return `between ${number(low, unit, units, signed)} and ${withSign(high, unit, units, signed)}`;
  return low != null
    ? `at least ${withSign(low, unit, units, signed)}`
    : `at most ${withSign(high ?? 0, unit, units, signed)}`;
}
