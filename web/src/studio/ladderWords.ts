import type { Schemas } from "../api/client";
import { sureWords } from "../drawn/changeWords";
import { number, type Unit, type Units, withSign } from "../units";
import { momentWords, READING_WORDS, SIGNED } from "../words";

export type Ladder = Schemas["LadderOut"];
export type Column = Schemas["ColumnOut"];
export type Against = Schemas["AgainstOut"];
export type Step = Schemas["StepOut"];
type Counted = Schemas["CountedOut"];
export type Try = Schemas["RungOut"];

/** What became of a shot. What lies to a side says which is positive, so that it holds for either hand. */
const SHOT_WORDS: Record<string, string> = {
  club_speed: "Club speed",
  ball_speed: "Ball speed",
  club_path: "Club path (+ in to out)",
  face: "Face (+ open)",
  face_to_path: "Face to path (+ open)",
  attack: "Attack (+ up)",
  launch: "Launch angle",
  start: "Start (+ to the ball's side)",
  spin: "Spin",
  carry: "Carry",
  aside: "Aside (+ to the ball's side)",
  low_point: "Low point (+ past the ball)",
};
const SHOT_SIGNED = new Set(["club_path", "face", "face_to_path", "attack", "start", "aside", "low_point"]);
const isShot = ({ at }: Column) => at === "shot";

/** What a column is called: "Pelvis turn, top". */
export const columnWords = (column: Column) =>
  isShot(column)
    ? (SHOT_WORDS[column.reading] ?? column.reading)
    : `${READING_WORDS[column.reading] ?? column.reading}, ${momentWords(column.at).toLowerCase()}`;

/** Whether a plus is written before what is more than nothing. */
export const isSigned = (column: Column) =>
  isShot(column) ? SHOT_SIGNED.has(column.reading) : SIGNED.has(column.reading);

/** What the tries without a change are called. */
export const changedWords = (changed: string) => changed || "As before";

/** "+7.1 ± 3.0°", with the half of its interval. */
export function byWords(found: Against, unit: Unit, units: Units): string {
  const half = (found.high - found.low) / 2;
  return `${number(found.by, unit, units, true)} ± ${withSign(half, unit, units)}`;
}

/** The same for who made the tries: "about 11° more, give or take 4°: that is real". */
export function triedWords(found: Against, unit: Unit, units: Units, drifted: boolean): string {
  const half = withSign((found.high - found.low) / 2, unit, units);
  const by = `about ${withSign(Math.abs(found.by), unit, units)} ${found.by < 0 ? "less" : "more"}, give or take ${half}`;
  if (drifted) return `${by}; but it moved by itself meanwhile, so this is not to be believed yet.`;
  if (found.verdict === "real") return `${by}. That is real.`;
  if (found.verdict === "seems") return `${by}. So it seems; a few more tries will tell.`;
  if (found.verdict === "not_shown") return "no difference that matters.";
  return "cannot be told yet.";
}

/** Whether a difference is more than errors and scatter, and what would settle it. */
export function verdictWords(found: Against): string {
  const more = moreWords(found.more);
  if (found.verdict === "real")
    return `real, ${sureWords(found.sure)} sure: so far apart by chance ${chanceWords(found.p ?? found.rarest)}`;
  if (found.verdict === "seems")
    return `seems so, but of too few: they could come out so ${chanceWords(found.rarest)} at best${more ? `; ${more}` : ""}`;
  if (found.verdict === "not_shown") return "no difference is shown, and one that matters would have been";
  return more ? `cannot be told yet; ${more}` : "cannot be told, and a dozen more tries would not settle it";
}

/** "once in 35 times": how often chance alone deals tries out so. */
function chanceWords(p: number): string {
  return `once in ${Math.round(1 / Math.max(p, 1e-4))} times`;
}

function moreWords(more: number): string {
  if (more === 0) return "";
  return more === 1 ? "one more try each way would settle it" : `${more} more tries each way would settle it`;
}

export const STRUCK_WORDS: Record<Counted["struck"], string> = {
  clean: "clean",
  heavy: "heavy",
  thin: "thin",
  toe: "off the toe",
  heel: "off the heel",
};

/** "heavy: 4 of 5, then 1 of 5; that could be chance". */
export function struckWords({ struck, base, of_base, changed, of_changed, real }: Counted): string {
  const found = `${STRUCK_WORDS[struck]}: ${base} of ${of_base}, with it ${changed} of ${of_changed}`;
  return `${found}; ${real ? "that is hardly chance" : "that can be chance"}`;
}

/** What to do before a change is believed; nothing where that was done. */
export function cautionWords(step: Step, columns: Column[]): string {
  if (step.drifted.length) {
    const moved = columns.filter(({ column }) => step.drifted.includes(column)).map(columnWords);
    return `Do not believe it yet: tries as before moved by themselves meanwhile (${moved.join("; ")}).`;
  }
  const seen = step.columns.some(({ verdict }) => verdict === "real" || verdict === "seems");
  return step.went_back || !seen ? "" : "Go back once without the change before you believe it.";
}

/** Tries at which the mat did not lie where it was laid before, in words; null where it always did. */
export function movedWords(tries: Try[]): string | null {
  const moved = tries.flatMap(({ films }, place) =>
    films.some(({ mat }) => mat === "moved") ? [place + 1] : [],
  );
  if (moved.length === 0) return null;
  const which = moved.length === 1 ? `try ${moved[0]}` : `tries ${moved.join(", ")}`;
  return `At ${which} the mat was not found where it was laid before: it or the camera was moved, or it cannot be seen. Lay it anew on the bench.`;
}
