import { memo } from "react";
import { type Units, withErrorOrNothing } from "../../units";
import { direction, momentWords, READING_WORDS, SAID_WORDS, SIGNED } from "../../words";
import { endsOf } from "./band";
import type { Reading } from "./reading";
import { Standing, standingWords } from "./Standing";
import { type Past, TapeDetail } from "./TapeDetail";
import { tapeScale } from "./tapeScale";

const WIDTH = 284;
const HEIGHT = 50;
const PAD = 14;

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
            reading={reading}
            value={value}
            u95={u95}
            reference={reference}
            before={past?.[0]}
            units={units}
          />
        )}
        {!given && <span className="block px-2 py-1 text-sm">{reading.reason}</span>}
      </button>
      {given && open && <TapeDetail reading={reading} past={past} units={units} />}
    </div>
  );
});

/** The tape itself: band, ticks, where the reading stands and how sure, the reference's beneath. */
export function TapePicture(props: {
  reading: Pick<Reading, "band" | "unit" | "provisional">;
  value: number;
  u95: number;
  reference?: Reading;
  before?: Past;
  units: Units;
}) {
  const { reading, value, u95, reference, before, units } = props;
  const other = reference?.status === "ok" ? reference : undefined;
  const values = [value - u95, value + u95];
  values.push(...endsOf(reading.band));
  if (other?.value != null && other.u95 != null)
    values.push(other.value - other.u95, other.value + other.u95);
  if (before) values.push(before.value);
  const scale = tapeScale(values, reading.unit, units);
  const x = (core: number) => PAD + scale.at(core) * (WIDTH - 2 * PAD);
  // An end that is open goes on to the end of the tape.
  const low = reading.band?.low == null ? 0 : x(reading.band.low);
  const high = reading.band?.high == null ? WIDTH : x(reading.band.high);
  const tickX = (tick: number) => PAD + ((tick - scale.low) / (scale.high - scale.low)) * (WIDTH - 2 * PAD);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full" aria-hidden="true">
      <rect
        x={0}
        y={14}
        width={WIDTH}
        height={19}
        fill="var(--color-base-200)"
        stroke="currentColor"
        strokeOpacity={0.35}
      />
      {reading.band && (
        <rect x={low} y={14} width={high - low} height={19} fill="var(--color-accent)" fillOpacity={0.38} />
      )}
      {scale.ticks.map((tick) => (
        <g key={tick}>
          <line
            x1={tickX(tick)}
            x2={tickX(tick)}
            y1={14}
            y2={21}
            stroke="currentColor"
            strokeWidth={tick === 0 ? 2.2 : 0.8}
          />
          <text
            x={tickX(tick)}
            y={30.5}
            fontSize={8.5}
            textAnchor="middle"
            className="num"
            fill="currentColor"
          >
            {tick < 0 ? `−${-tick}` : tick}
          </text>
        </g>
      ))}
      {before && (
        <g fill="var(--student)" fillOpacity={0.5}>
          <path d={`M${x(before.value)} 17l-5 -11h10z`} />
          <rect x={x(before.value) - 0.5} y={17} width={1} height={16} />
        </g>
      )}
      <g stroke="var(--student)" fill="var(--student)">
        <line
          x1={x(value - u95)}
          x2={x(value + u95)}
          y1={8}
          y2={8}
          strokeWidth={2}
          strokeDasharray={reading.provisional ? "3 3" : undefined}
        />
        <line x1={x(value - u95)} x2={x(value - u95)} y1={4.5} y2={11.5} strokeWidth={1.4} />
        <line x1={x(value + u95)} x2={x(value + u95)} y1={4.5} y2={11.5} strokeWidth={1.4} />
        {reading.provisional ? (
          <path d={`M${x(value)} 17l-5 -11h10z`} fill="none" strokeWidth={1.3} strokeDasharray="2.5 2" />
        ) : (
          <path d={`M${x(value)} 17l-5 -11h10z`} stroke="none" />
        )}
      </g>
      {other?.value != null && other.u95 != null && (
        <g stroke="var(--reference)" fill="var(--reference)">
          <line
            x1={x(other.value - other.u95)}
            x2={x(other.value + other.u95)}
            y1={41}
            y2={41}
            strokeWidth={1.4}
          />
          <path d={`M${x(other.value)} 31l-4.5 10h9z`} stroke="none" />
        </g>
      )}
    </svg>
  );
}
