import { Link } from "react-router";
import { day } from "../../parts/when";
import { number, type Unit, type Units, unitSign } from "../../units";
import { momentWords, READING_WORDS, SIGNED } from "../../words";
import type { Judgement } from "./verdict";

type Before = Judgement["earlier"][number];

/** The focus of the last lesson: then, now, and whether that is more than errors and the student's own scatter. */
export function LastTime({ judgement, units }: { judgement: Judgement; units: Units }) {
  const [first] = judgement.earlier;
  if (!first) return null;
  return (
    <section aria-label="Last time">
      <h2 className="flex items-baseline justify-between bg-pine px-2 py-1 text-sm font-semibold text-paper">
        Last time
        <Link className="font-normal underline" to={`/bench/${first.swing_id}?station=judge`}>
          {day(first.on)}
        </Link>
      </h2>
      <ul>
        {judgement.earlier.map((each) => (
          <li
            key={each.fault}
            data-testid={`before-${each.fault}`}
            className="flex items-start gap-2 border-b border-base-content/20 px-2 py-1.5 text-sm"
          >
            <Reached of={each} />
            <span className="min-w-0 flex-1">
              <span className="font-semibold">{each.name}</span>
              <span className="block text-xs opacity-90">{toldOf(each, units)}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A goal that was reached is a filled ring; one that was not an empty one; no answer a broken one. */
function Reached({ of }: { of: Before }) {
  const known = of.change !== null;
  return (
    <svg width={14} height={14} aria-hidden="true" className="mt-0.5 shrink-0">
      <circle
        cx={7}
        cy={7}
        r={5.5}
        fill={of.is_reached ? "currentColor" : "none"}
        stroke="currentColor"
        strokeWidth={1.6}
        strokeDasharray={known ? undefined : "2 2"}
      />
    </svg>
  );
}

function toldOf({ goal, change, is_reached, now_provisional }: Before, units: Units): string {
  if (!goal) return "No goal was set.";
  const what = `${READING_WORDS[goal.reading] ?? goal.reading} ${momentWords(goal.at).toLowerCase()}`;
  if (!change) return `${what}: ${is_reached ? "where it should be" : "cannot be told from this swing yet"}.`;
  const signed = SIGNED.has(goal.reading);
  const said = (value: number) => number(value, goal.unit, units, signed);
  const moved = MOVED[change.moved];
  const by = `${number(change.by, goal.unit, units, true)} ± ${number(change.u95, goal.unit, units)}`;
  const ends = `${what}: ${said(change.then)} → ${said(change.now)}${sign(goal.unit, units)}`;
  const reached = is_reached ? "Goal reached." : "Goal not reached yet.";
  return `${ends} (${by}): ${moved}. ${reached}${now_provisional ? " Provisional." : ""}`;
}

const MOVED = {
  toward: "moved toward the goal",
  away: "moved away from it",
  not_shown: "no more than errors and scatter",
};
const sign = (unit: Unit, units: Units) =>
  unit === "deg" ? unitSign(unit, units) : ` ${unitSign(unit, units)}`;
