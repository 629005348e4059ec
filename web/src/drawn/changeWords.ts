import type { Schemas } from "../api/client";
import { type Unit, type Units, withError, withSign } from "../units";

export type Change = Schemas["ChangeOut"];
type Worst = Schemas["ChangeSince"]["worst"];

/** A length of something that was read, without its way: "2.1 cm". */
const size = (value: number, unit: Unit, units: Units) => withSign(Math.abs(value), unit, units);

/** Whether a reading changed, for who teaches: "moved toward the band by 6.2 ± 2.4 cm, 99 % sure". */
export function changeWords(change: Change, unit: Unit, units: Units): string {
  const by = withError(change.by, change.u95, unit, units, true);
  if (change.moved === "not_shown")
    return `no change is shown: one of more than ${size(change.u95, unit, units)} would have been seen`;
  if (change.moved === "unsure") return `too uncertain to say (${by})`;
  return `${MOVED[change.moved]} by ${by}, ${sureWords(change.sure)} sure`;
}

const MOVED = { toward: "moved toward the band", away: "moved away from the band", moved: "moved" };

/** Never surer than a hundredth tells. */
export function sureWords(sure: number): string {
  return sure > 0.99 ? "more than 99 %" : `${Math.floor(sure * 100)} %`;
}

/** How many swings then and now are meant: "mean of 3 swings then, 4 now"; nothing for one each. */
export function countWords({ then_swings, now_swings }: Change): string {
  if (then_swings === 1 && now_swings === 1) return "one swing then, one now";
  const then = then_swings === 1 ? "one swing" : `mean of ${then_swings} swings`;
  return `${then} then, ${now_swings} now`;
}

/** What would tell where nothing can be told: so many swings, or a better look; nothing where it can. */
export function settlesWords({ settles }: Change, worst: Worst = null): string {
  if (!settles) return "";
  const better = settles.measuring && worst && REMEDY[worst];
  const look = better ? ` Most of what is unsure is how it is measured: ${better}.` : "";
  if (settles.swings === 0) return `No count of swings would tell.${look}`;
  const swings = settles.swings === 1 ? "one more swing" : `${settles.swings} more swings`;
  const days = settles.days === 1 ? "on another day" : `on ${settles.days} other days`;
  return `About ${swings} ${settles.days === 0 ? "of the same day" : days} would tell.${look}`;
}

const REMEDY: Record<NonNullable<Worst>, string> = {
  mark: "the same marks on the frames beside would help most",
  eye: "a second look at where the joint lies would help most",
  camera: "a mat on the floor would help most",
  depth: "the other view would help most",
  stand: "a camera squared to a stick would help most",
  moment: "more frames a second would help most",
  mat: "a larger mat would help most",
  plate: "a better pressure plate would help most",
  others: "its parts would help most",
};

export type GoalState = Schemas["GoalChecked"]["state"];

export const STATE_WORDS: Record<GoalState, string> = {
  reached: "Reached",
  on_the_way: "On the way",
  not_yet: "Not yet",
  cannot_be_told: "Cannot be told yet",
  no_swing_since: "No swing since",
};
