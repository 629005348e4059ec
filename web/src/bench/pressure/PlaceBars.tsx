import { PAPER_INK } from "../../drawn/ink";
import { type Units, withError } from "../../units";
import { CHECKPOINTS, READING_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { OTHER, onOf, pegsOf, type Side } from "../benchState";
import type { Reading } from "../readings/reading";
import { ENDS, PLACES, SHARE } from "./felt";

const [WIDE, TALL, PAD] = [38, 22, 4];
const ROWS = [SHARE, ...PLACES];
const NAMES: Record<string, string> = {
  [SHARE]: "Share",
  cop_lead_toe: "Lead",
  cop_lead_outer: "Lead",
  cop_trail_toe: "Trail",
  cop_trail_outer: "Trail",
};

/** Where the pressure is at each checkpoint: how much on which foot, heel to toe, inner to outer edge. */
export function PlaceBars({ side, units, tabled }: { side: Side; units: Units; tabled: boolean }) {
  const state = useBench((bench) => bench.sides[side]);
  const rival = useBench((bench) => bench.sides[OTHER[side]]);
  const goTo = useBench((bench) => bench.goTo);
  if (!state) return null;
  const pegs = pegsOf(onOf(state));
  const at = CHECKPOINTS.filter(([each]) => pegs[each] !== undefined);
  const find = (readings: Reading[] | undefined, id: string, when: string) =>
    readings?.find((each) => each.reading === id && each.at === when);
  return (
    <div
      className="min-h-0 min-w-0 overflow-auto"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keys must reach it
      tabIndex={0}
      data-scrolls
    >
      <table className="text-xs" aria-label="Pressure at the checkpoints">
        <thead>
          <tr>
            <th scope="col">
              <span className="sr-only">What</span>
            </th>
            {at.map(([each, short]) => (
              <th key={each} scope="col" className="px-1 font-normal">
                <button
                  type="button"
                  className="link link-hover min-h-6 max-w-10 leading-tight"
                  onClick={() => goTo(side, pegs[each] ?? 0)}
                >
                  {short}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ROWS.map((id) => (
            <tr key={id}>
              <th scope="row" className="pr-1 text-left leading-tight font-normal whitespace-nowrap">
                <span className="sr-only">{READING_WORDS[id]}</span>
                <span aria-hidden="true">
                  {NAMES[id]} <span className="opacity-75">{ENDS[id]?.join("–")}</span>
                </span>
              </th>
              {at.map(([when]) => {
                const own = find(state.readings, id, when);
                const other = find(rival?.readings, id, when);
                const words = [told(own, units), other && `reference ${told(other, units)}`].filter(Boolean);
                return (
                  <td key={when} className="px-0.5" title={words.join("; ")}>
                    {tabled ? (
                      <span className="num whitespace-nowrap">{told(own, units)}</span>
                    ) : (
                      <>
                        <span className="sr-only">{words.join("; ")}</span>
                        <Bar own={own} other={other} side={side} />
                      </>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function told(reading: Reading | undefined, units: Units): string {
  return reading && reading.value !== null && reading.u95 !== null
    ? withError(reading.value, reading.u95, reading.unit, units, false)
    : "not felt";
}

function Bar({ own, other, side }: { own?: Reading; other?: Reading; side: Side }) {
  const x = (share: number) => PAD + Math.min(Math.max(share, 0), 1) * (WIDE - 2 * PAD);
  const band = own?.band;
  return (
    <svg width={WIDE} height={TALL} className="block" aria-hidden="true">
      {band && (
        <rect
          x={x(band.low ?? 0)}
          width={x(band.high ?? 1) - x(band.low ?? 0)}
          y={1}
          height={TALL - 2}
          fill="var(--color-accent)"
          fillOpacity={0.4}
        />
      )}
      <path
        d={`M${x(0)} ${TALL / 2}H${x(1)}M${x(0)} 6v${TALL - 12}M${x(1)} 6v${TALL - 12}M${x(0.5)} 8v${TALL - 16}`}
        stroke="currentColor"
        strokeOpacity={0.4}
      />
      <Notch reading={other} x={x} y={TALL - 5} ink={PAPER_INK[OTHER[side]]} />
      <Notch reading={own} x={x} y={other ? 7 : TALL / 2} ink={PAPER_INK[side]} />
    </svg>
  );
}

function Notch(props: { reading?: Reading; x: (share: number) => number; y: number; ink: string }) {
  const { reading, x, y, ink } = props;
  if (!reading || reading.value === null || reading.u95 === null) return null;
  return (
    <g stroke={ink} fill={ink}>
      <line
        x1={x(reading.value - reading.u95)}
        x2={x(reading.value + reading.u95)}
        y1={y}
        y2={y}
        strokeWidth={1.6}
      />
      <circle cx={x(reading.value)} cy={y} r={3} stroke="none" />
    </g>
  );
}
