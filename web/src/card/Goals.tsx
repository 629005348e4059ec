import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { changeWords, countWords, STATE_WORDS, settlesWords } from "../drawn/changeWords";
import { GoalRing } from "../drawn/GoalRing";
import { TapePicture } from "../drawn/TapePicture";
import { checkWords, rangeWords } from "../lesson/goalWords";
import { day } from "../parts/when";
import type { Units } from "../units";
import { CLUB_CLASS_WORDS, momentWords, READING_WORDS, SIGNED } from "../words";

export type Goal = Schemas["GoalChecked"];

/** The goals of sent lessons, and what has become of each. */
export function Goals({ goals, units }: { goals: Goal[]; units: Units }) {
  if (!goals.length)
    return (
      <p className="plate border-dashed p-4">
        No goal yet. Choose one at Judge; it is checked by every later swing with that club.
      </p>
    );
  return (
    <ul className="grid gap-3 sm:grid-cols-2">
      {goals.map((each) => (
        <GoalPlate key={`${each.goal.reading} ${each.goal.at} ${each.club_class}`} of={each} units={units} />
      ))}
    </ul>
  );
}

function GoalPlate({ of, units }: { of: Goal; units: Units }) {
  const { goal, change, state } = of;
  const reading = READING_WORDS[goal.reading] ?? goal.reading;
  return (
    <li className="plate p-3 text-sm" data-testid={`goal-${goal.reading}`}>
      <h3 className="flex items-start gap-2 font-semibold">
        <GoalRing state={state} />
        <span className="min-w-0 flex-1">{of.name}</span>
        <span className={`shrink-0 ${of.overdue ? "underline decoration-brass decoration-2" : ""}`}>
          {STATE_WORDS[state]}
        </span>
      </h3>
      <p className="mt-1">
        {reading} {momentWords(goal.at).toLowerCase()}{" "}
        {rangeWords(goal, goal.unit, units, SIGNED.has(goal.reading))}
        {goal.by && `, by ${day(goal.by)}`}, {CLUB_CLASS_WORDS[of.club_class].toLowerCase()}.
        {of.overdue && " That day is past."}
      </p>
      {change && (
        <>
          <TapePicture
            band={{ low: goal.low ?? null, high: goal.high ?? null }}
            unit={goal.unit}
            value={change.now}
            u95={change.now_u95}
            before={change.then}
            units={units}
          />
          <p className="first-letter:uppercase">
            {changeWords(change, goal.unit, units)} ({countWords(change)}). {settlesWords(change)}
          </p>
        </>
      )}
      <p className="opacity-85">
        Set on{" "}
        {of.filmed ? (
          <Link className="underline" to={`/bench/${of.swing_id}?station=judge`}>
            {day(of.set_on)}
          </Link>
        ) : (
          day(of.set_on)
        )}
        . {checkWords(goal.swings)}
      </p>
    </li>
  );
}
