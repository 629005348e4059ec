import { memo, type PointerEvent, useMemo, useRef } from "react";
import { PAPER_INK as INK } from "../../drawn/ink";
import { useSize } from "../../parts/useSize";
import { fromImpact } from "../../units";
import { CHECKPOINTS, isCheckpoint, PEG_WORDS, type PegName } from "../../words";
import { useBench, useFrame } from "../benchContext";
import { OTHER, onOf, paired, type Side, type SideState, timelineOf } from "../benchState";
import type { ClipMarks } from "../edits";
import { timeFromImpact } from "./pegLink";
import type { RulerLayout } from "./rulerLayout";
import { useRuler } from "./useRuler";

const HEIGHT = 62;
const SIDES = ["student", "reference"] as const;
const ROW: Record<Side, [number, number]> = { student: [18, 31], reference: [31, 44] };
const SHORT: Record<PegName, string> = { ...PEG_WORDS, ...Object.fromEntries(CHECKPOINTS) };

/**
 * One ruler under both stages. Its length is the student's real time; the reference is stretched so
 * that the same pegs stand above each other. One drag moves both.
 */
export function SwingRule() {
  const sides = useBench((bench) => bench.sides);
  const active = useBench((bench) => bench.active);
  const goTo = useBench((bench) => bench.goTo);
  const box = useRef<HTMLDivElement>(null);
  const { width } = useSize(box);
  const layout = useRuler(width);
  const side = sides[active] ? active : OTHER[active];
  const now = sides[side];
  const frame = useFrame(side);
  const scrub = (event: PointerEvent) => {
    const rect = box.current?.getBoundingClientRect();
    if (layout) goTo(side, layout.frameAt(side, event.clientX - (rect?.left ?? 0)));
  };
  return (
    <div
      ref={box}
      className="plate relative shrink-0 cursor-ew-resize touch-none select-none"
      role="slider"
      tabIndex={0}
      aria-label="Swing rule"
      aria-valuemin={now?.clip.window.first ?? 0}
      aria-valuemax={now?.clip.window.last ?? 0}
      aria-valuenow={frame}
      aria-valuetext={now ? spoken(now, frame) : ""}
      onKeyDown={(event) => {
        if (!now || (event.key !== "Home" && event.key !== "End")) return;
        if (event.shiftKey || event.ctrlKey || event.metaKey) return;
        event.preventDefault();
        goTo(side, event.key === "Home" ? now.clip.window.first : now.clip.window.last);
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        scrub(event);
      }}
      onPointerMove={(event) => {
        if (event.buttons & 1) scrub(event);
      }}
      style={{ height: HEIGHT }}
    >
      {layout && <RuleDrawing layout={layout} width={width} />}
      <svg width="100%" height={HEIGHT} aria-hidden="true" className="pointer-events-none absolute inset-0">
        {layout && SIDES.map((each) => sides[each] && <Cursor key={each} side={each} layout={layout} />)}
      </svg>
    </div>
  );
}

/** Ticks, pegs and their names: what stays while the stages move. */
const RuleDrawing = memo(function RuleDrawing({ layout, width }: { layout: RulerLayout; width: number }) {
  const sides = useBench((bench) => bench.sides);
  const ticks = useMemo(
    () => SIDES.map((side) => tickPath(side, layout.positions[side], width)),
    [layout, width],
  );
  const main = sides[layout.main];
  const twin = paired({ sides });
  const inkOf = (side: Side) => INK[twin ? "student" : side];
  const named = new Set(main ? withRoom(onOf(main).pegs, layout) : []);
  const inside = (x: number) => x >= 0 && x <= width;
  const xOf = (of: Side, frame: number) => layout.positions[of][frame] ?? -100;
  return (
    <svg width="100%" height={HEIGHT} aria-hidden="true" className="block">
      <line x1={0} x2="100%" y1={31} y2={31} stroke="currentColor" strokeOpacity={0.5} />
      {ticks.map((path, i) => (
        <path
          key={SIDES[i]}
          d={path}
          stroke={inkOf(SIDES[i] ?? "student")}
          strokeWidth={1}
          strokeOpacity={0.75}
          fill="none"
        />
      ))}
      {SIDES.flatMap((side) => {
        const state = sides[side];
        if (!state) return [];
        const [top, bottom] = ROW[side];
        return onOf(state).pegs.map((peg) => {
          const x = xOf(side, peg.frame);
          if (!inside(x)) return null;
          const event = !isCheckpoint(peg.name);
          return (
            <g key={`${side} ${peg.name}`}>
              <line
                x1={x}
                x2={x}
                y1={top - 4}
                y2={bottom + 4}
                stroke="var(--color-accent)"
                strokeWidth={event ? 1.5 : 3}
              />
              <circle
                cx={x}
                cy={side === "student" ? top - 5 : bottom + 5}
                r={3.5}
                fill={event ? "var(--color-base-200)" : inkOf(side)}
                stroke={inkOf(side)}
              />
              {side === layout.main && named.has(peg.name) && (
                <text x={x} y={10} textAnchor="middle" fontSize={11} fontWeight={600} fill="currentColor">
                  {SHORT[peg.name]}
                </text>
              )}
            </g>
          );
        });
      })}
      <text x={6} y={28} fontSize={11} fill="currentColor" className="num">
        {sides.student ? "student" : ""}
      </text>
      <text x={6} y={42} fontSize={11} fill="currentColor" className="num">
        {twin ? "other view" : sides.reference ? "reference" : ""}
      </text>
    </svg>
  );
});

/** Where a stage stands. */
function Cursor({ side, layout }: { side: Side; layout: RulerLayout }) {
  const x = layout.positions[side][useFrame(side)] ?? -100;
  const ink = INK[useBench(paired) ? "student" : side];
  const awake = useBench((bench) => bench.linked || bench.active === side);
  const [top, bottom] = ROW[side];
  return (
    <g opacity={awake ? 1 : 0.6}>
      <line x1={x} x2={x} y1={top} y2={bottom} stroke={ink} strokeWidth={2.5} />
      <path d={side === "student" ? `M${x} ${top}l-5 -7h10z` : `M${x} ${bottom}l-5 7h10z`} fill={ink} />
    </g>
  );
}

/** Where a stage stands, as it is read out. */
function spoken(state: SideState, frame: number): string {
  const peg = onOf(state).pegs.find((each) => each.frame === frame);
  const time = fromImpact(timeFromImpact(timelineOf(state), frame));
  return `frame ${frame}, ${time}${peg ? `, ${PEG_WORDS[peg.name]}` : ""}`;
}

// Which names are written where there is no room for all, most wanted first.
const RANK: PegName[] = ["top", "impact", "address", "finish"];
const NAME_PX = 64;

/** The pegs whose names can be written without running into each other. */
function withRoom(pegs: ClipMarks["pegs"], layout: RulerLayout): PegName[] {
  const rank = (name: PegName) => (RANK.includes(name) ? RANK.indexOf(name) : RANK.length);
  const taken: number[] = [];
  return pegs
    .filter((peg) => isCheckpoint(peg.name))
    .sort((a, b) => rank(a.name) - rank(b.name))
    .filter((peg) => {
      const x = layout.positions[layout.main][peg.frame] ?? -1000;
      if (taken.some((other) => Math.abs(other - x) < NAME_PX)) return false;
      taken.push(x);
      return true;
    })
    .map((peg) => peg.name);
}

/** Fine ticks, one a frame, long at every tenth. */
function tickPath(side: Side, positions: number[], width: number): string {
  const [top, bottom] = ROW[side];
  return positions
    .map((x, frame) => {
      if (x < 0 || x > width) return "";
      const length = frame % 10 === 0 ? bottom - top : 5;
      return side === "student"
        ? `M${x.toFixed(1)} ${bottom}v${-length}`
        : `M${x.toFixed(1)} ${top}v${length}`;
    })
    .join("");
}
