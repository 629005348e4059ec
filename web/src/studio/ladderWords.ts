import type { Schemas } from "../api/client";
import { sureWords } from "../drawn/changeWords";
import { number, type Unit, type Units, unitSign } from "../units";
import { momentWords, READING_WORDS } from "../words";

export type Ladder = Schemas["LadderOut"];
export type Column = Schemas["ColumnOut"];
export type Against = Schemas["AgainstOut"];
export type Step = Schemas["StepOut"];
export type Try = Schemas["RungOut"];

/** What a column is called: "Pelvis turn, top". */
export const columnWords = ({ reading, at }: Column) =>
  `${READING_WORDS[reading] ?? reading}, ${momentWords(at).toLowerCase()}`;

/** What the tries without a change are called. */
export const changedWords = (changed: string) => changed || "As before";

/** "+7.1 ± 3.0°", with the half of its interval. */
export function byWords(found: Against, unit: Unit, units: Units): string {
  const gap = unit === "deg" ? "" : " ";
  const half = (found.high - found.low) / 2;
  return `${number(found.by, unit, units, true)} ± ${number(half, unit, units)}${gap}${unitSign(unit, units)}`;
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

/** What to do before a change is believed; nothing where that was done. */
export function cautionWords(step: Step, columns: Column[]): string {
  if (step.drifted.length) {
    const moved = columns.filter(({ column }) => step.drifted.includes(column)).map(columnWords);
    return `Do not believe it yet: tries as before moved by themselves meanwhile (${moved.join("; ")}).`;
  }
  const seen = step.columns.some(({ verdict }) => verdict === "real" || verdict === "seems");
  return step.went_back || !seen ? "" : "Go back once without the change before you believe it.";
}
