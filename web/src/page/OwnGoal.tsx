import { STATE_WORDS } from "../drawn/changeWords";
import { GoalRing } from "../drawn/GoalRing";
import { TapePicture } from "../drawn/TapePicture";
import { checkWords, goalWords } from "../lesson/goalWords";
import { day } from "../parts/when";
import type { Units } from "../units";
import type { Hand } from "../words";
import type { Page } from "./usePage";

/** A goal, and what has become of it: the same as the instructor sees. */
export function OwnGoal({ of, units, hand }: { of: Page["goals"][number]; units: Units; hand: Hand }) {
  const { goal, state, change } = of;
  const now = change ? { value: change.now, u95: change.now_u95 } : goal.then;
  return (
    <section className="mb-3">
      <h3 className="flex items-start gap-2 font-semibold">
        <GoalRing state={state} />
        <span className="min-w-0 flex-1">{of.name}</span>
        <span className="shrink-0 text-sm font-normal">{STATE_WORDS[state]}</span>
      </h3>
      <p className="first-letter:uppercase">
        {goalWords(goal, units, hand)}
        {goal.by && `, by ${day(goal.by)}`}.
      </p>
      {now && (
        <TapePicture
          band={{ low: goal.low ?? null, high: goal.high ?? null }}
          unit={goal.unit}
          value={now.value}
          u95={now.u95}
          before={change?.then}
          units={units}
        />
      )}
      {state !== "reached" && <p className="text-sm">{checkWords(goal.swings)}</p>}
    </section>
  );
}
