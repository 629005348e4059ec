import type { Schemas } from "../api/client";
import { tapeScale } from "../drawn/tapeScale";
import { number, type Units, unitSign } from "../units";
import { changedWords, columnWords, isSigned } from "./ladderWords";

type Told = Schemas["HourInLesson"];

const WIDTH = 340;
const LEFT = 128;
const ROW = 15;
const TOP = 8;
const FOOT = 18;

/** One watched column of an hour as rungs: every try at its value with its whisker, changed tries filled. */
export function LadderPicture({ told, column, units }: { told: Told; column: string; units: Units }) {
  const about = told.columns.find((each) => each.column === column);
  const rows = told.tries.map(({ changed, values }) => ({
    changed,
    found: values.find((each) => each.column === column),
  }));
  const read = rows.flatMap(({ found }) => found ?? []);
  if (!about || read.length === 0) return null;
  const base = rows[0]?.changed ?? "";
  const ends = read.flatMap(({ value, u95 }) => [value - u95, value + u95]);
  const scale = tapeScale(ends, about.unit, units, false);
  const x = (value: number) => LEFT + scale.at(value) * (WIDTH - LEFT - 8);
  const tickX = (tick: number) => LEFT + ((tick - scale.low) / (scale.high - scale.low)) * (WIDTH - LEFT - 8);
  const bottom = TOP + rows.length * ROW;
  const ticks = scale.ticks.filter((_, i) => scale.ticks.length < 6 || i % 2 === 0);
  const mean = told.steps[0]?.columns.find((each) => each.column === column)?.base;
  return (
    <figure className="mt-2">
      <figcaption className="text-sm font-semibold">
        {columnWords(about)}, {unitSign(about.unit, units)}
      </figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${bottom + FOOT}`} className="block w-full" aria-hidden="true">
        {ticks.map((tick) => (
          <g key={tick}>
            <path d={`M${tickX(tick)} ${TOP}V${bottom}`} stroke="currentColor" strokeOpacity={0.16} />
            <text x={tickX(tick)} y={bottom + 12} fontSize={9} textAnchor="middle" fill="currentColor">
              {tick < 0 ? `−${-tick}` : tick}
            </text>
          </g>
        ))}
        {mean !== undefined && (
          <path
            d={`M${x(mean)} ${TOP}V${bottom}`}
            stroke="currentColor"
            strokeOpacity={0.6}
            strokeWidth={1.2}
          />
        )}
        {rows.map(({ changed, found }, place) => {
          const y = TOP + (place + 0.5) * ROW;
          const first = place === 0 || rows[place - 1]?.changed !== changed;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a try is its place
            <g key={place}>
              {first && (
                <text x={2} y={y + 3} fontSize={10} fill="currentColor">
                  {short(changedWords(changed))}
                </text>
              )}
              {first && place > 0 && (
                <path d={`M0 ${y - ROW / 2}H${WIDTH}`} stroke="currentColor" strokeOpacity={0.25} />
              )}
              {found && (
                <>
                  <path
                    d={`M${x(found.value - found.u95)} ${y}H${x(found.value + found.u95)}`}
                    stroke="var(--student)"
                    strokeWidth={1.6}
                  />
                  <circle
                    cx={x(found.value)}
                    cy={y}
                    r={3.8}
                    fill={changed === base ? "var(--color-base-200)" : "var(--student)"}
                    stroke="var(--student)"
                    strokeWidth={1.4}
                  />
                </>
              )}
            </g>
          );
        })}
      </svg>
      <ol className="sr-only">
        {rows.map(({ changed, found }, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a try is its place
          <li key={place}>
            {changedWords(changed)}:{" "}
            {found ? number(found.value, about.unit, units, isSigned(about)) : "not read"}
          </li>
        ))}
      </ol>
    </figure>
  );
}

const LONGEST = 22;
const short = (words: string) => (words.length > LONGEST ? `${words.slice(0, LONGEST - 1)}…` : words);
