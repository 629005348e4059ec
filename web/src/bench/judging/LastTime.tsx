import { Link } from "react-router";
import { changeWords, STATE_WORDS, settlesWords } from "../../drawn/changeWords";
import { GoalRing } from "../../drawn/GoalRing";
import { day } from "../../parts/when";
import { number, signBehind, type Units } from "../../units";
import { momentWords, READING_WORDS, SIGNED } from "../../words";
import type { LastFocus } from "./thenAndNow";
import { useThenAndNow } from "./useThenAndNow";
import type { Judgement } from "./verdict";

/** The focus of the last lesson: then, now, and whether that is more than errors and the student's own scatter. */
export function LastTime({ judgement, units }: { judgement: Judgement; units: Units }) {
  const [first] = judgement.earlier;
  const { put, busy } = useThenAndNow(units);
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
            <GoalRing state={each.state} />
            <span className="min-w-0 flex-1">
              <span className="font-semibold">{each.name}</span>
              <span className="block text-xs opacity-90">{toldOf(each, units)}</span>
              {each.goal && each.change && !each.now_provisional && (
                <button
                  type="button"
                  className="btn btn-xs mt-1 font-normal"
                  disabled={busy}
                  onClick={() => void put(each)}
                >
                  Then and now into the lesson
                </button>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function toldOf({ goal, change, state, now_provisional }: LastFocus, units: Units): string {
  if (!goal) return "No goal was set.";
  const what = `${READING_WORDS[goal.reading] ?? goal.reading} ${momentWords(goal.at).toLowerCase()}`;
  const stands = `${state ? STATE_WORDS[state] : "Cannot be told from this swing yet"}.`;
  const provisional = now_provisional ? " Provisional." : "";
  if (!change) return `${what}: ${stands}${provisional}`;
  const said = (value: number) => number(value, goal.unit, units, SIGNED.has(goal.reading));
  const ends = `${what}: ${said(change.then)} → ${said(change.now)}${signBehind(goal.unit, units)}`;
  const more = settlesWords(change);
  return `${ends}: ${changeWords(change, goal.unit, units)}. ${stands}${more && ` ${more}`}${provisional}`;
}
