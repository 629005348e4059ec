import type { Schemas } from "../api/client";
import { day } from "../parts/when";
import { LadderPicture } from "../studio/LadderPicture";
import { changedWords, columnWords, struckWords, triedWords } from "../studio/ladderWords";
import type { Units } from "../units";

/** What was tried in a studio hour, for its student: a picture a column, and what each change did in a sentence. */
export function TriedPart({ told, units }: { told: Schemas["HourInLesson"]; units: Units }) {
  if (!told.columns.length) return null;
  return (
    <section className="mt-6">
      <h2 className="text-lg font-bold">What we tried on {day(told.day)}</h2>
      {told.steps.map((step) => (
        <div key={step.changed} className="mt-1">
          <h3 className="font-semibold">{changedWords(step.changed)}</h3>
          <ul className="list-disc pl-5">
            {step.columns.map((found) => {
              const column = told.columns.find((each) => each.column === found.column);
              if (!column) return null;
              const drifted = step.drifted.includes(found.column);
              return (
                <li key={found.column}>
                  {columnWords(column)}: {triedWords(found, column.unit, units, drifted)}
                </li>
              );
            })}
            {step.strikes.map((each) => (
              <li key={each.struck}>Struck {struckWords(each)}.</li>
            ))}
          </ul>
        </div>
      ))}
      {told.columns.map(({ column }) => (
        <LadderPicture key={column} told={told} column={column} units={units} />
      ))}
      <p className="mt-1 text-xs">
        A row a try, in order; the line on either side of a dot is how far off its measuring may be. The
        upright line is the mean of the first tries and of those like them.
      </p>
    </section>
  );
}
