import { type PointerEvent, useMemo, useRef } from "react";
import { INK_WORDS, PAPER_INK } from "../../drawn/ink";
import { type TapeScale, tapeScale } from "../../drawn/tapeScale";
import { useSize } from "../../parts/useSize";
import { type Unit, type Units, withError } from "../../units";
import { CHECKPOINT_WORDS, type Checkpoint, READING_WORDS, SIGNED } from "../../words";
import { useBench, useFrame } from "../benchContext";
import { OTHER, onOf, pegsOf, type Side } from "../benchState";
import { type Band, endsOf } from "../readings/band";
import type { RulerLayout } from "../rule/rulerLayout";
import { useRuler } from "../rule/useRuler";
import { CurveChart } from "./CurveChart";
import { indexAt, type LaidCurve, layCurve } from "./curveData";
import { type Course, useCourse } from "./useCourse";

const SIDES = ["student", "reference"] as const;

/** A reading over the swing, both swings on the rule beneath, with the bands where there are any. */
export function Curves(props: { reading: string; units: Units; asked?: string[]; otherwise?: boolean }) {
  // What is asked is fetched at once: more than is drawn. Who shows how it is taught otherwise says what that is.
  const { reading, units, asked = [reading], otherwise = false } = props;
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const layout = useRuler(width);
  const student = useCourse("student", asked);
  const reference = useCourse("reference", asked);
  const active = useBench((bench) => bench.active);
  const sides = useBench((bench) => bench.sides);
  const goTo = useBench((bench) => bench.goTo);
  const main: Side = sides.student ? "student" : "reference";
  const readings = sides[main]?.readings;
  const bands = useMemo(
    () => (readings ?? []).filter((each) => each.reading === reading && each.band),
    [readings, reading],
  );
  const unit: Unit | undefined =
    (student.found ?? reference.found)?.course.curves.find((each) => each.reading === reading)?.unit ??
    readings?.find((r) => r.reading === reading)?.unit;
  const curves = useLaid(layout, reading, student.found, reference.found);
  const others = otherwise
    ? (student.found ?? reference.found)?.course.others.filter((each) => each.reading === reading)
    : [];
  const scale = useMemo(() => scaleOf(curves, bands, unit, units), [curves, bands, unit, units]);
  const scrub = (event: PointerEvent) => {
    const side = sides[active] ? active : OTHER[active];
    const rect = box.current?.getBoundingClientRect();
    if (layout) goTo(side, layout.frameAt(side, event.clientX - (rect?.left ?? 0)));
  };
  const empty = !curves.student && !curves.reference;
  const trouble = student.trouble || reference.trouble;
  const y = (core: number) => (scale ? (1 - scale.at(core)) * height : 0);
  const shown = sides[main];
  const pegs = shown ? Object.entries(pegsOf(onOf(shown))) : [];
  const xOf = (side: Side, frame: number) => layout?.positions[side][frame] ?? -100;
  return (
    <div
      ref={box}
      className="relative min-h-0 flex-1 cursor-ew-resize touch-none overflow-hidden select-none"
      data-testid="curves"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        scrub(event);
      }}
      onPointerMove={(event) => {
        if (event.buttons & 1) scrub(event);
      }}
    >
      {scale && layout && unit && (
        <>
          <svg width={width} height={height} className="absolute inset-0" aria-hidden="true">
            {scale.ticks.map((tick) => {
              const at = (1 - (tick - scale.low) / (scale.high - scale.low)) * height;
              return (
                <line
                  key={tick}
                  x1={0}
                  x2={width}
                  y1={at}
                  y2={at}
                  stroke="currentColor"
                  strokeOpacity={tick === 0 ? 0.7 : 0.15}
                />
              );
            })}
            {pegs.map(([name, frame]) =>
              name in CHECKPOINT_WORDS ? (
                <line
                  key={name}
                  x1={xOf(main, frame)}
                  x2={xOf(main, frame)}
                  y1={0}
                  y2={height}
                  stroke="var(--color-accent)"
                  strokeOpacity={0.6}
                />
              ) : null,
            )}
            {[
              ...bands,
              ...(others ?? []).map((band) => ({ at: band.at, band, teaching: band.teaching })),
            ].map((asks) => {
              const { at, band } = asks;
              const frame = shown && pegsOf(onOf(shown))[at as Checkpoint];
              if (!band || frame === undefined) return null;
              const top = band.high === null ? 0 : y(band.high);
              const foot = band.low === null ? height : y(band.low);
              const taught = "teaching" in asks ? asks.teaching : undefined;
              return (
                <rect
                  key={`${at} ${taught ?? ""}`}
                  x={xOf(main, frame) - 7}
                  width={14}
                  y={top}
                  height={Math.max(foot - top, 1)}
                  fill={taught ? "none" : "var(--color-accent)"}
                  stroke={taught ? "var(--color-accent)" : "none"}
                  strokeWidth={1.5}
                  strokeDasharray="3 2"
                  fillOpacity={0.4}
                  data-taught={taught}
                />
              );
            })}
          </svg>
          <svg
            width={width}
            height={height}
            className="pointer-events-none absolute inset-0"
            aria-hidden="true"
          >
            <CurveChart curves={curves} y={y} />
            {SIDES.map((side) => {
              const curve = curves[side];
              return curve && <Alone key={side} side={side} curve={curve} y={y} />;
            })}
            {SIDES.map(
              (side) => sides[side] && <Cursor key={side} side={side} layout={layout} tall={height} />,
            )}
            {scale.ticks.slice(1, -1).map((tick) => {
              const at = (1 - (tick - scale.low) / (scale.high - scale.low)) * height;
              return (
                <text key={tick} x={4} y={at - 3} fontSize={10} className="num" fill="currentColor">
                  {tick < 0 ? `−${-tick}` : tick}
                </text>
              );
            })}
          </svg>
          <Readout curves={curves} layout={layout} reading={reading} unit={unit} units={units} />
        </>
      )}
      {empty && (
        <p className="absolute inset-0 grid place-items-center p-4 text-sm">
          {trouble ||
            (student.found || reference.found
              ? `${READING_WORDS[reading] ?? reading} has no curve yet: mark what it needs on two frames at least.`
              : "Measuring the swing…")}
        </p>
      )}
    </div>
  );
}

/** Where a stage stands. */
function Cursor({ side, layout, tall }: { side: Side; layout: RulerLayout; tall: number }) {
  const x = layout.positions[side][useFrame(side)] ?? -100;
  return <line x1={x} x2={x} y1={0} y2={tall} stroke={PAPER_INK[side]} strokeWidth={1.5} />;
}

/** Values that stand by themselves, with their whiskers. */
function Alone({ side, curve, y }: { side: Side; curve: LaidCurve; y: (core: number) => number }) {
  return (
    <g stroke={PAPER_INK[side]} fill={PAPER_INK[side]}>
      {curve.alone.map((i) => {
        const [x, value, low, high] = [curve.x[i], curve.y[i], curve.low[i], curve.high[i]];
        if (x === undefined || value == null || low == null || high == null) return null;
        return (
          <g key={curve.frames[i]}>
            <line x1={x} x2={x} y1={y(low)} y2={y(high)} strokeWidth={1.5} />
            <circle cx={x} cy={y(value)} r={3.5} stroke="none" />
          </g>
        );
      })}
    </g>
  );
}

/** The values on the frames that the stages show. */
function Readout(props: {
  curves: Partial<Record<Side, LaidCurve>>;
  layout: RulerLayout;
  reading: string;
  unit: Unit;
  units: Units;
}) {
  const { curves, layout, reading, unit, units } = props;
  const stands = useBench((bench) => bench.stands);
  return (
    <p
      className="num absolute top-1 right-2 flex gap-4 bg-base-100/85 px-1 text-xs font-semibold"
      role="status"
    >
      {SIDES.map((side) => {
        const curve = curves[side];
        if (!curve) return null;
        const i = indexAt(curve, layout.positions[side][stands[side].frame] ?? -1000);
        const value = i === null ? null : curve.y[i];
        const high = i === null ? null : curve.high[i];
        return (
          <span key={side} style={{ color: INK_WORDS[side] }}>
            <span className="sr-only">{side}: </span>
            {value == null || high == null
              ? "not marked here"
              : withError(value, high - value, unit, units, SIGNED.has(reading))}
          </span>
        );
      })}
    </p>
  );
}

function useLaid(
  layout: RulerLayout | null,
  reading: string,
  student: Course | null,
  reference: Course | null,
) {
  return useMemo(() => {
    const own = layout && student && layCurve(student, reading, layout);
    const other = layout && reference && layCurve(reference, reading, layout);
    return { ...(own ? { student: own } : {}), ...(other ? { reference: other } : {}) };
  }, [layout, reading, student, reference]);
}

function scaleOf(
  curves: Partial<Record<Side, LaidCurve>>,
  bands: { band: Band | null }[],
  unit: Unit | undefined,
  units: Units,
): TapeScale | null {
  const values = SIDES.flatMap((side) => [...(curves[side]?.low ?? []), ...(curves[side]?.high ?? [])]);
  const known = values.filter((value) => value !== null);
  if (!unit || !known.length) return null;
  return tapeScale([...known, ...bands.flatMap(({ band }) => endsOf(band))], unit, units);
}
