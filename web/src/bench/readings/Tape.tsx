import { memo } from "react";
import { TapePicture } from "../../drawn/TapePicture";
import { type Units, withErrorOrNothing } from "../../units";
import { direction, momentWords, READING_WORDS, SAID_WORDS, SIGNED } from "../../words";
import type { Reading } from "./reading";
import { Standing, standingWords } from "./Standing";
import { type Past, TapeDetail } from "./TapeDetail";

interface Props {
  reading: Reading;
  reference?: Reading;
  past?: Past[]; // what the same student's earlier swings gave, the latest first
  open: boolean; // what stands behind it is shown beneath
  units: Units;
  go: (reading: Reading) => void;
}

/** A reading on a piece of measuring tape; a click goes to the frame it came from. */
export const Tape = memo(function Tape({ reading, reference, past, open, units, go }: Props) {
  const { value, u95 } = reading;
  const given = reading.status === "ok" && value !== null && u95 !== null;
  const word = READING_WORDS[reading.reading] ?? reading.reading;
  return (
    <div className="break-inside-avoid border-b border-base-content/20 last:border-0">
      <button
        type="button"
        data-prints
        aria-expanded={given ? open : undefined}
        data-testid={`tape-${reading.reading}-${reading.at}`}
        className="block w-full py-1 text-left hover:bg-base-200"
        onClick={() => go(reading)}
        title={reading.method}
      >
        <span className="flex items-baseline justify-between gap-2 px-2">
          <span className="flex items-center gap-1.5 text-sm font-medium">
            <Standing of={given ? reading.standing : null} />
            <span>
              {word}
              {given && reading.provisional && <em className="text-xs font-normal"> provisional</em>}{" "}
              <span className="font-normal opacity-80">{momentWords(reading.at).toLowerCase()}</span>
            </span>
            <span className="sr-only">: </span>
          </span>
          {given ? (
            <span className="num shrink-0 text-sm font-semibold whitespace-nowrap">
              {reading.said
                ? SAID_WORDS[reading.said]
                : withErrorOrNothing(value, u95, reading.unit, units, SIGNED.has(reading.reading))}
              <span className="sr-only">
                , {direction(reading.reading, value, reading.sign)}. {standingWords(reading.standing)}
              </span>
            </span>
          ) : null}
        </span>
        {given && reading.said && (
          <span className="block px-2 text-xs">
            <span className="num">{value.toFixed(1)}</span> standard deviations from the nearest limit
          </span>
        )}
        {given && !reading.said && (
          <TapePicture
            {...reading}
            value={value}
            u95={u95}
            reference={
              reference?.status === "ok" && reference.value !== null && reference.u95 !== null
                ? { value: reference.value, u95: reference.u95 }
                : undefined
            }
            before={past?.[0]?.value}
            units={units}
          />
        )}
        {!given && <span className="block px-2 py-1 text-sm">{reading.reason}</span>}
      </button>
      {given && open && <TapeDetail reading={reading} past={past} units={units} />}
    </div>
  );
});
