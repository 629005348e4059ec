import { day } from "../../parts/when";
import { type Units, withError } from "../../units";
import { SIGNED } from "../../words";
import type { Reading } from "../benchState";

const WORTH_SAYING = 0.005;
const MUCH = 0.5;

/** A reading of an earlier swing of the same student. */
export interface Past {
  on: string;
  value: number;
  u95: number;
}

interface Props {
  reading: Reading;
  past?: Past[];
  units: Units;
}

/** What stands behind a reading: how it is measured, from which frames, where its error comes from, and before. */
export function TapeDetail({ reading, past, units }: Props) {
  return (
    <div className="grid gap-1 bg-base-200 px-2 py-1.5 text-xs">
      <p>{reading.method}</p>
      {reading.provisional && (
        <p>
          Provisional: a machine followed or proposed a mark of it that nobody has looked at. It stays out of
          a lesson until you ask for it.
        </p>
      )}
      <p>
        {reading.sign}
        {reading.unit === "ratio" && " · 1 is 100 %"}
        {reading.frames.length > 0 && (
          <>
            {" · "}
            {reading.frames.length > 1 ? "frames" : "frame"}{" "}
            <span className="num">{reading.frames.join(", ")}</span>
          </>
        )}
      </p>
      {reading.budget.length > 0 && (
        <>
          <p className="font-semibold">Where its ± comes from</p>
          <dl className="grid grid-cols-[auto_1fr_auto] items-center gap-x-2">
            {reading.budget
              .filter(({ share }) => share >= WORTH_SAYING)
              .map(({ source, share }) => (
                <div key={source} className="contents">
                  <dt>{source}</dt>
                  <dd className="h-2 border border-base-content/30">
                    <div className="h-full bg-clay/70" style={{ width: `${share * 100}%` }} />
                  </dd>
                  <dd className="num text-right">{Math.round(share * 100)} %</dd>
                </div>
              ))}
          </dl>
          {reading.largest_error && <p>Most by one thing: {reading.largest_error}.</p>}
          {(reading.budget[0]?.source === "marks" ? reading.budget[0].share : 0) >= MUCH && (
            <p>Marked on two frames to either side as well, a mark is surer.</p>
          )}
        </>
      )}
      {past && past.length > 0 && (
        <>
          <p className="font-semibold">On earlier swings</p>
          <dl className="grid grid-cols-[1fr_auto] gap-x-2">
            {past.map(({ on, value, u95 }) => (
              <div key={on} className="contents">
                <dt>{day(on)}</dt>
                <dd className="num text-right">
                  {withError(value, u95, reading.unit, units, SIGNED.has(reading.reading))}
                </dd>
              </div>
            ))}
          </dl>
        </>
      )}
    </div>
  );
}
