import type { Unit, Units } from "../units";
import { tapeScale } from "./tapeScale";

const WIDTH = 284;
const HEIGHT = 50;
const PAD = 14;

/** A reading on a piece of measuring tape: band, ticks, where it stands and how sure, the reference's beneath. */
export function TapePicture(props: {
  band: { low: number | null; high: number | null } | null;
  unit: Unit;
  provisional?: boolean;
  value: number;
  u95: number;
  reference?: { value: number; u95: number };
  before?: number; // what the same student's earlier swing gave
  units: Units;
}) {
  const { band, unit, provisional = false, value, u95, reference: other, before, units } = props;
  const values = [value - u95, value + u95];
  values.push(...[band?.low, band?.high].filter((end) => end != null));
  if (other) values.push(other.value - other.u95, other.value + other.u95);
  if (before !== undefined) values.push(before);
  const scale = tapeScale(values, unit, units);
  const x = (core: number) => PAD + scale.at(core) * (WIDTH - 2 * PAD);
  // An end that is open goes on to the end of the tape.
  const low = band?.low == null ? 0 : x(band.low);
  const high = band?.high == null ? WIDTH : x(band.high);
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
      {band && (
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
      {before !== undefined && (
        <g fill="var(--student)" fillOpacity={0.5}>
          <path d={`M${x(before)} 17l-5 -11h10z`} />
          <rect x={x(before) - 0.5} y={17} width={1} height={16} />
        </g>
      )}
      <g stroke="var(--student)" fill="var(--student)">
        <line
          x1={x(value - u95)}
          x2={x(value + u95)}
          y1={8}
          y2={8}
          strokeWidth={2}
          strokeDasharray={provisional ? "3 3" : undefined}
        />
        <line x1={x(value - u95)} x2={x(value - u95)} y1={4.5} y2={11.5} strokeWidth={1.4} />
        <line x1={x(value + u95)} x2={x(value + u95)} y1={4.5} y2={11.5} strokeWidth={1.4} />
        {provisional ? (
          <path d={`M${x(value)} 17l-5 -11h10z`} fill="none" strokeWidth={1.3} strokeDasharray="2.5 2" />
        ) : (
          <path d={`M${x(value)} 17l-5 -11h10z`} stroke="none" />
        )}
      </g>
      {other && (
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
