import type { Schemas } from "../api/client";
import { settlesWords } from "../drawn/changeWords";
import { TapePicture } from "../drawn/TapePicture";
import { DrawnFrame } from "../lesson/DrawnFrame";
import { nameOf, readWords } from "../lesson/goalWords";
import { day } from "../parts/when";
import { type Unit, type Units, withSign } from "../units";
import { type Hand, momentWords } from "../words";

type Row = Schemas["ThenAndNow"];

/** A goal when it was first read and in the latest lesson: two pictures, one tape, and whether that is a change. */
export function ThenAndNow({ row, units, hand }: { row: Row; units: Units; hand: Hand }) {
  const { goal, change, pictures } = row;
  const said = (value: number) => readWords(goal.reading, value, goal.unit, units, hand);
  return (
    <section className="mb-5" aria-label={`Then and now: ${row.name}`}>
      <h3 className="font-semibold">{row.name}</h3>
      {pictures.length === 2 && (
        <div className="mt-1 grid grid-cols-2 gap-1">
          {pictures.map(({ frame, src }, i) => (
            <figure key={src}>
              <DrawnFrame
                frame={frame}
                src={src}
                units={units}
                mirrored={frame.drawn.hand !== hand}
                hand={hand}
                beside
              />
              <figcaption className="text-sm">
                {i ? "Now" : "Then"}, {day(i ? row.now_on : row.then_on)}
              </figcaption>
            </figure>
          ))}
        </div>
      )}
      <p className="mt-1">
        {momentWords(goal.at)}, {nameOf(goal.reading, hand)}: {said(change.then)} on {day(row.then_on)},{" "}
        {said(change.now)} on {day(row.now_on)}.
      </p>
      <TapePicture
        band={{ low: goal.low ?? null, high: goal.high ?? null }}
        unit={goal.unit}
        value={change.now}
        u95={change.now_u95}
        before={change.then}
        units={units}
      />
      <p className="text-sm">{told(change, goal.unit, units)}</p>
    </section>
  );
}

/** Whether it is a change, in a student's words. */
function told(change: Row["change"], unit: Unit, units: Units): string {
  if (change.moved === "not_shown")
    return `No change: one of more than ${withSign(change.u95, unit, units)} would have been seen.`;
  if (change.moved === "unsure") return `No change can be told yet. ${settlesWords(change)}`;
  const by = withSign(Math.abs(change.by), unit, units);
  return `${MOVED[change.moved]} by about ${by}, give or take ${withSign(change.u95, unit, units)}.`;
}

const MOVED = {
  toward: "It moved toward the goal",
  away: "It moved away from the goal",
  moved: "It moved",
};
