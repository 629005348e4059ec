import type { Schemas } from "../api/client";
import { TapePicture } from "../drawn/TapePicture";
import { type Units, withErrorOrNothing } from "../units";
import { momentWords, READING_WORDS, SIGNED } from "../words";

type FirstTape = Schemas["FirstTape"];

/** What stands out at the first look: a machine's, and nobody has looked at it. */
export function FirstTapes({ tapes, units }: { tapes: FirstTape[]; units: Units }) {
  if (!tapes.length) return null;
  return (
    <section aria-label="First look" className="mt-2">
      <h3 className="text-xs">
        <b>First look</b>, by the machine; nobody has looked at it yet
      </h3>
      <ul className="mt-1 grid gap-x-4 gap-y-1 md:grid-cols-2 xl:grid-cols-3">
        {tapes.map((tape) => (
          <li key={`${tape.reading} ${tape.at}`} className="min-w-0">
            <p className="flex items-baseline justify-between gap-2 text-sm">
              <span>
                {READING_WORDS[tape.reading] ?? tape.reading}{" "}
                <span className="opacity-80">{momentWords(tape.at).toLowerCase()}</span>
              </span>
              <span className="num whitespace-nowrap">
                {withErrorOrNothing(tape.value, tape.u95, tape.unit, units, SIGNED.has(tape.reading))}
              </span>
            </p>
            <TapePicture
              band={{ low: tape.low, high: tape.high }}
              unit={tape.unit}
              provisional
              value={tape.value}
              u95={tape.u95}
              units={units}
            />
            <p className="text-xs">
              {tape.standing === "below" ? "Below" : "Above"} its band:{" "}
              <span className="num">{Math.min(Math.round(tape.sure * 100), 99)} %</span> sure
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
