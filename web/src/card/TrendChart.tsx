import { useMemo } from "react";
import { tapeScale } from "../drawn/tapeScale";
import type { Units } from "../units";
import { laid, paths, placeOf, reach, type Span, type Timed, type Trend, type Trends } from "./trend";

const LEFT = 34;
const TOP = 6;
const FOOT = 16;

export interface GoalOnTime {
  low: number | null;
  high: number | null;
  from: number; // when it was set, and by when it should be reached
  by: number | null;
}

interface Props {
  trend: Trend;
  swings: Timed[];
  lessons: Trends["lessons"];
  practised: number[]; // days on which a drill was done, milliseconds
  goal?: GoalOnTime;
  span: Span;
  units: Units;
  width: number;
  height: number;
}

/** A reading over time: every swing with its whisker, the mean of each day, the band and the goal in brass. */
export function TrendChart({ trend, swings, lessons, practised, goal, span, units, width, height }: Props) {
  const inner = width - LEFT - 4;
  const bottom = height - FOOT;
  const drawn = useMemo(() => {
    const { dots, days } = laid(trend, swings, span, inner);
    const ends = [...reach(dots), trend.low, trend.high, goal?.low, goal?.high].filter((end) => end != null);
    const scale = tapeScale(ends, trend.unit, units, false);
    const [none, one] = [scale.at(0), scale.at(1)]; // units are in proportion: two places tell all
    const y = (value: number) => bottom - (none + (one - none) * value) * (bottom - TOP);
    const looked = paths(
      dots.filter(({ provisional }) => !provisional),
      y,
    );
    const unlooked = paths(
      dots.filter(({ provisional }) => provisional),
      y,
    );
    const means = days.map(
      ({ from, to, mean }) => `M${from.toFixed(1)} ${y(mean).toFixed(1)}H${to.toFixed(1)}`,
    );
    return { scale, y, looked, unlooked, means: means.join("") };
  }, [trend, swings, span, inner, units, bottom, goal]);
  const { scale, y, looked, unlooked, means } = drawn;
  const ticks = scale.ticks.filter((_, i) => scale.ticks.length < 6 || i % 2 === 0);
  const tickY = (tick: number) => bottom - ((tick - scale.low) / (scale.high - scale.low)) * (bottom - TOP);
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="block w-full" aria-hidden="true">
      <g transform={`translate(${LEFT} 0)`}>
        <Strip of={trend} y={y} top={TOP} bottom={bottom} from={0} to={inner} opacity={0.2} />
        {goal && (
          <Strip
            of={goal}
            y={y}
            top={TOP}
            bottom={bottom}
            from={Math.max(0, placeOf(goal.from, span, inner))}
            to={goal.by === null ? inner : Math.min(inner, placeOf(goal.by, span, inner))}
            opacity={0.34}
            edged
          />
        )}
        <path
          d={ticks.map((tick) => `M0 ${tickY(tick).toFixed(1)}H${inner}`).join("")}
          stroke="currentColor"
          strokeOpacity={0.16}
        />
        <path d={`M0 ${TOP}V${bottom}H${inner}`} fill="none" stroke="currentColor" strokeOpacity={0.5} />
        <path
          d={lessons.map(({ on }) => flag(placeOf(Date.parse(on), span, inner), bottom)).join("")}
          fill="none"
          stroke="currentColor"
          strokeOpacity={0.75}
        />
        <path d={strokes(practised, span, inner, bottom)} stroke="currentColor" strokeOpacity={0.75} />
        <g stroke="var(--student)" fill="none">
          <path d={unlooked.whiskers} strokeWidth={1.2} strokeDasharray="2.5 2" />
          <path d={unlooked.points} strokeWidth={5.4} strokeLinecap="round" />
          <path d={unlooked.points} strokeWidth={3.2} strokeLinecap="round" stroke="var(--color-base-100)" />
          <path d={looked.whiskers} strokeWidth={1.2} strokeOpacity={0.75} />
          <path d={looked.points} strokeWidth={4.4} strokeLinecap="round" />
        </g>
        <path d={means} stroke="currentColor" strokeWidth={2} />
        {span.months.map(({ time, words }) => (
          <text
            key={time}
            x={placeOf(time, span, inner)}
            y={height - 4}
            fontSize={9}
            textAnchor="middle"
            fill="currentColor"
          >
            {words}
          </text>
        ))}
      </g>
      {ticks.map((tick) => (
        <text
          key={tick}
          x={LEFT - 4}
          y={tickY(tick) + 3}
          fontSize={9}
          textAnchor="end"
          className="num"
          fill="currentColor"
        >
          {tick < 0 ? `−${-tick}` : tick}
        </text>
      ))}
    </svg>
  );
}

/** A lesson is a flag that stands on the time line. */
const flag = (x: number, bottom: number) => `M${x.toFixed(1)} ${bottom}V${TOP}l5 2.5l-5 2.5`;

/** A day on which a drill was done is a short stroke that stands on it. */
const strokes = (days: number[], span: Span, width: number, bottom: number) =>
  days
    .filter((day) => day >= span.from && day <= span.to)
    .map((day) => `M${placeOf(day, span, width).toFixed(1)} ${bottom}v-4`)
    .join("");

function Strip(props: {
  of: { low?: number | null; high?: number | null };
  y: (value: number) => number;
  top: number;
  bottom: number;
  from: number;
  to: number;
  opacity: number;
  edged?: boolean;
}) {
  const { of, y, top, bottom, from, to, opacity, edged } = props;
  if ((of.low == null && of.high == null) || to <= from) return null;
  const upper = of.high == null ? top : Math.max(top, y(of.high));
  const lower = of.low == null ? bottom : Math.min(bottom, y(of.low));
  const edges = [of.low, of.high].filter((end) => end != null).map((end) => `M${from} ${y(end)}H${to}`);
  return (
    <>
      <rect
        x={from}
        y={upper}
        width={to - from}
        height={Math.max(0, lower - upper)}
        fill="var(--color-accent)"
        fillOpacity={opacity}
      />
      {edged && (
        <path
          d={edges.join("")}
          stroke="var(--color-accent)"
          strokeWidth={1.6}
          strokeDasharray="5 3"
          fill="none"
        />
      )}
    </>
  );
}
