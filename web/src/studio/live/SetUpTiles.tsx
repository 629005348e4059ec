import { useStore } from "zustand";
import type { Schemas } from "../../api/client";
import { ENDS } from "../../bench/pressure/felt";
import { number, signBehind, type Units, withError } from "../../units";
import { READING_WORDS } from "../../words";
import type { HourLine, Tile } from "./line";
import { standing } from "./standing";

type Asked = Schemas["SetUpOut"];

const [WIDE, TALL, PAD] = [132, 20, 6];
const FELT: Record<string, (tile: Tile) => number | null> = {
  pressure_lead_share: (tile) => tile.lead_share,
  cop_lead_toe: (tile) => tile.lead?.[0] ?? null,
  cop_lead_outer: (tile) => tile.lead?.[1] ?? null,
  cop_trail_toe: (tile) => tile.trail?.[0] ?? null,
  cop_trail_outer: (tile) => tile.trail?.[1] ?? null,
};

/** How the student stands now, against what is taught; what a plate cannot feel is of the latest try. */
export function SetUpTiles({ line, asked, units }: { line: HourLine; asked: Asked[]; units: Units }) {
  const seen = asked.filter(({ reading, read }) => !(reading in FELT) && read);
  return (
    <ul className="mt-2 grid grid-cols-2 gap-2 sm:grid-cols-3 lg:grid-cols-5" aria-label="The set-up now">
      {asked
        .filter(({ reading }) => reading in FELT)
        .map((each) => (
          <li
            key={each.reading}
            className="rounded border border-base-300 p-2"
            data-testid={`now-${each.reading}`}
          >
            <Now line={line} asked={each} units={units} />
          </li>
        ))}
      {seen.map(({ reading, unit, low, high, read }) => (
        <li key={reading} className="rounded border border-base-300 p-2 text-sm">
          <p>{READING_WORDS[reading]}</p>
          <p className="num text-lg">{read && withError(read.value, read.u95, unit, units, false)}</p>
          <p className="text-xs">
            {bandWords({ unit, low, high }, units)}
            {read?.provisional ? "; latest try, not looked at" : "; latest try"}
          </p>
        </li>
      ))}
    </ul>
  );
}

function Now({ line, asked, units }: { line: HourLine; asked: Asked; units: Units }) {
  const { reading, unit, low, high } = asked;
  const value = useStore(line.store, ({ tile }) => tile && (FELT[reading]?.(tile) ?? null));
  const x = (share: number) => PAD + Math.min(Math.max(share, 0), 1) * (WIDE - 2 * PAD);
  const [from, to] = ENDS[reading] ?? ["", ""];
  const where = value === null ? null : standing(value, low, high);
  return (
    <div className="text-sm">
      <p>{READING_WORDS[reading]}</p>
      <p className="num text-lg">
        {value === null ? (
          <span className="opacity-75">Nobody</span>
        ) : (
          `${number(value, unit, units)}${signBehind(unit, units)}`
        )}
      </p>
      <svg viewBox={`0 0 ${WIDE} ${TALL}`} className="block w-full max-w-56" aria-hidden="true">
        {(low !== null || high !== null) && (
          <rect
            x={x(low ?? 0)}
            width={x(high ?? 1) - x(low ?? 0)}
            y={1}
            height={TALL - 2}
            fill="var(--color-accent)"
            fillOpacity={0.4}
          />
        )}
        <path
          d={`M${x(0)} ${TALL / 2}H${x(1)}M${x(0)} 5v${TALL - 10}M${x(1)} 5v${TALL - 10}M${x(0.5)} 7v${TALL - 14}`}
          stroke="currentColor"
          strokeOpacity={0.4}
        />
        {value !== null && <circle cx={x(value)} cy={TALL / 2} r={5} fill="var(--student)" />}
      </svg>
      <p className="flex max-w-56 justify-between text-xs" aria-hidden="true">
        <span>{from}</span>
        <span>{to}</span>
      </p>
      <p className="text-xs">
        {bandWords(asked, units)}
        {where && where !== "inside" && `: go toward the ${where === "low" ? to : from}`}
      </p>
    </div>
  );
}

function bandWords({ unit, low, high }: Pick<Asked, "unit" | "low" | "high">, units: Units): string {
  const sign = signBehind(unit, units);
  if (low === null && high === null) return "Not taught";
  if (low === null) return `Taught: at most ${number(high ?? 0, unit, units)}${sign}`;
  if (high === null) return `Taught: at least ${number(low, unit, units)}${sign}`;
  return `Taught: ${number(low, unit, units)} to ${number(high, unit, units)}${sign}`;
}
