import { useRef } from "react";
import { INK_WORDS, PAPER_INK } from "../../drawn/ink";
import { useSize } from "../../parts/useSize";
import { type Units, withError } from "../../units";
import { PART_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { onOf, type Side, timelineFrom } from "../benchState";
import type { Reading } from "../readings/reading";
import { linkedTime, nearestFrame, timeFromImpact } from "../rule/pegLink";
import { type Course, useCourse } from "./useCourse";

// From the floor up: the lowest lane is the lead knee's.
const LANES = ["club", "lead_arm", "chest", "pelvis_turn", "pelvis_shift", "lead_knee"];
const NAMES = 92;
const RIGHT = 260;
const AXIS = 16;
const SIDES = ["student", "reference"] as const;
const LEAST_S = -0.15;
const ROOM_S = 0.02;
const TICK_S = 0.05;

/** When each part starts toward the target, from the floor up, against the club's turning at the top. */
export function Relay({ units }: { units: Units }) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const student = useCourse("student", []).found;
  const reference = useCourse("reference", []).found;
  const found = { student, reference };
  const starts = SIDES.flatMap((side) => startsOf(found[side]).map((reading) => ({ side, reading })));
  const struck = SIDES.flatMap((side) => impactOf(found[side]) ?? []);
  const least = Math.min(LEAST_S, ...starts.map(({ reading }) => (reading.value ?? 0) - (reading.u95 ?? 0)));
  const most = Math.max(
    0.1,
    ...struck,
    ...starts.map(({ reading }) => (reading.value ?? 0) + (reading.u95 ?? 0)),
  );
  const [first, last] = [least - ROOM_S, most + ROOM_S];
  const x = (seconds: number) =>
    NAMES + ((seconds - first) / (last - first)) * Math.max(width - NAMES - RIGHT, 1);
  const lane = (height - AXIS) / LANES.length;
  const ticks = Array.from({ length: Math.floor(last / TICK_S) - Math.ceil(first / TICK_S) + 1 }, (_, i) =>
    Math.round((Math.ceil(first / TICK_S) + i) * TICK_S * 1000),
  );
  const go = useGo(found);
  return (
    <div ref={box} className="relative min-h-0 flex-1 overflow-hidden" data-testid="relay">
      {height > AXIS && (
        <svg width={width} height={height} className="absolute inset-0" aria-hidden="true">
          {ticks.map((ms) => (
            <g key={ms}>
              <line
                x1={x(ms / 1000)}
                x2={x(ms / 1000)}
                y1={0}
                y2={height - AXIS}
                stroke="currentColor"
                strokeOpacity={0.12}
              />
              <text
                x={x(ms / 1000)}
                y={height - 4}
                fontSize={10}
                textAnchor="middle"
                className="num"
                fill="currentColor"
              >
                {ms < 0 ? `−${-ms}` : ms}
              </text>
            </g>
          ))}
          {LANES.map((part, i) => (
            <line
              key={part}
              x1={0}
              x2={width}
              y1={i * lane}
              y2={i * lane}
              stroke="currentColor"
              strokeOpacity={0.2}
            />
          ))}
          {SIDES.map((side, row) => {
            const end = impactOf(found[side]);
            return startsOf(found[side]).map((reading) => {
              const i = LANES.indexOf(reading.at);
              const { value, u95 } = reading;
              if (i < 0 || value === null || u95 === null || end === null) return null;
              const y = i * lane + lane * (row === 0 ? 0.12 : 0.54);
              const thick = lane * 0.34;
              return (
                <g key={`${side} ${reading.at}`} fill={PAPER_INK[side]} stroke={PAPER_INK[side]}>
                  <rect
                    x={x(value)}
                    y={y}
                    width={Math.max(x(end) - x(value), 0)}
                    height={thick}
                    fillOpacity={0.3}
                    stroke="none"
                  />
                  <rect x={x(value) - 1.5} y={y} width={3} height={thick} stroke="none" />
                  <line
                    x1={x(value - u95)}
                    x2={x(value + u95)}
                    y1={y + thick / 2}
                    y2={y + thick / 2}
                    strokeWidth={1.5}
                  />
                </g>
              );
            });
          })}
          {SIDES.map((side) => {
            const end = impactOf(found[side]);
            return (
              end !== null && (
                <line
                  key={side}
                  x1={x(end)}
                  x2={x(end)}
                  y1={0}
                  y2={height - AXIS}
                  stroke={PAPER_INK[side]}
                  strokeDasharray="3 3"
                />
              )
            );
          })}
          <line x1={x(0)} x2={x(0)} y1={0} y2={height - AXIS} stroke="var(--color-accent)" strokeWidth={3} />
          <text x={width - 8} y={height - 4} fontSize={10} textAnchor="end" fill="currentColor">
            ms from the top
          </text>
        </svg>
      )}
      {LANES.map((part, i) => (
        <div
          key={part}
          className="absolute right-0 left-0 flex items-center text-xs"
          style={{ top: i * lane, height: lane }}
        >
          <span className="pl-2 font-medium" style={{ width: NAMES }}>
            {PART_WORDS[part]}
          </span>
          <span className="ml-auto flex gap-3 pr-2">
            {SIDES.map((side) => {
              const reading = found[side]?.times.find(
                (each) => each.reading === "start_times" && each.at === part,
              );
              return (
                reading && (
                  <Start
                    key={side}
                    side={side}
                    reading={reading}
                    units={units}
                    go={() => go(side, reading)}
                  />
                )
              );
            })}
          </span>
        </div>
      ))}
      {!student && !reference && (
        <p className="absolute inset-0 grid place-items-center text-sm">Measuring the swing…</p>
      )}
    </div>
  );
}

function Start(props: { side: Side; reading: Reading; units: Units; go: () => void }) {
  const { side, reading, units, go } = props;
  const { value, u95 } = reading;
  if (value === null || u95 === null)
    return (
      <span className="w-28 truncate text-right opacity-75" title={reading.reason}>
        <span className="sr-only">{side}: </span>not pegged
      </span>
    );
  return (
    <button
      type="button"
      className="num w-28 text-right hover:underline"
      style={{ color: INK_WORDS[side] }}
      onClick={go}
    >
      <span className="sr-only">{side}: </span>
      {withError(value, u95, "s", units, true)}
    </button>
  );
}

const startsOf = (found: Course | null) =>
  found?.times.filter((each) => each.reading === "start_times" && each.status === "ok") ?? [];

/** Seconds from the top to impact. */
function impactOf(found: Course | null): number | null {
  const top = found?.line?.pegs.top;
  const since = found?.line && top !== undefined ? timeFromImpact(found.line, top) : null;
  return since === null ? null : -since;
}

/** To the frame at which a part starts, on the clip that its stage shows. */
function useGo(found: Record<Side, Course | null>) {
  const sides = useBench((bench) => bench.sides);
  const goTo = useBench((bench) => bench.goTo);
  const set = useBench((bench) => bench.set);
  return (side: Side, reading: Reading) => {
    const line = found[side]?.line;
    const state = sides[side];
    const top = line?.times[line.pegs.top ?? -1];
    if (!line || !state || top === undefined || reading.value === null) return;
    const own = timelineFrom(state.clip, onOf(state));
    set({ active: side });
    goTo(side, nearestFrame(own.times, linkedTime(top + reading.value, line, own)));
  };
}
