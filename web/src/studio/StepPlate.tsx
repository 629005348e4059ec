import type { Units } from "../units";
import {
  byWords,
  type Column,
  cautionWords,
  changedWords,
  columnWords,
  type Step,
  struckWords,
  verdictWords,
} from "./ladderWords";

/** What one change did to each watched column, and what to do before it is believed. */
export function StepPlate({ step, columns, units }: { step: Step; columns: Column[]; units: Units }) {
  const caution = cautionWords(step, columns);
  return (
    <li className="plate p-3 text-sm">
      <h3 className="font-semibold">{changedWords(step.changed)}</h3>
      {step.columns.length === 0 && <p>Nothing that is watched was read on both sides yet.</p>}
      <dl className="mt-1 grid gap-1">
        {step.columns.map((found) => {
          const column = columns.find(({ column }) => column === found.column);
          if (!column) return null;
          return (
            <div key={found.column} className="flex flex-wrap gap-x-2">
              <dt>{columnWords(column)}:</dt>
              <dd>
                <span className="num">{byWords(found, column.unit, units)}</span>: {verdictWords(found)}.
              </dd>
            </div>
          );
        })}
        {step.strikes.map((each) => (
          <div key={each.struck} className="flex flex-wrap gap-x-2">
            <dt>Struck</dt>
            <dd>{struckWords(each)}.</dd>
          </div>
        ))}
      </dl>
      {caution && <p className="mt-2 border-l-4 border-brass pl-2">{caution}</p>}
    </li>
  );
}
