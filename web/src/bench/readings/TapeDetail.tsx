import { day } from "../../parts/when";
import { type Units, withError } from "../../units";
import { SIGNED } from "../../words";
import { ErrorShares } from "./ErrorShares";
import type { Reading } from "./reading";

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
      {reading.status === "ok" && <ErrorShares reading={reading} />}
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
