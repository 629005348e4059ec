import type { Schemas } from "../../api/client";
import { FloorShapes } from "../../drawn/FloorShapes";
import { HEIGHT, layOut, SIDES, WIDTH } from "../../drawn/floorLayout";
import { INK } from "../../drawn/ink";
import { tapeScale } from "../../drawn/tapeScale";
import { nameOf, readWords } from "../../lesson/goalWords";
import type { Units } from "../../units";
import { type Hand, PART_WORDS, sidesOf } from "../../words";
import type { WalkClip } from "../player/SceneOverlay";
import { stretches, valueAt } from "./overTime";

const [DUSK, PAPER, BRASS] = ["#10201D", "#F6F3EA", "#D8AA4C"];
const LANES = ["club", "lead_arm", "chest", "pelvis_turn", "pelvis_shift", "lead_knee"]; // from the floor up
const [NAMES, PAD, ROW] = [104, 8, 17];

export type DrawnPart = "curves" | "relay" | "floor";

/** A stage's clip and the time from impact at which it stands. */
export interface Standing {
  clip: WalkClip;
  at_s: number | null;
}

interface Props {
  part: DrawnPart;
  reading: string;
  stages: Standing[];
  width: number;
  height: number;
  units: Units;
  hand: Hand; // of the student who reads it
}

/** What of the swings over time lay open on the bench: the same in the player and in the film. */
export function DrawerLayer(props: Props) {
  const { part, width, height } = props;
  return (
    <g data-drawer={part}>
      <rect width={width} height={height} fill={DUSK} />
      {part === "curves" && <CurvesOpen {...props} />}
      {part === "relay" && <RelayOpen {...props} />}
      {part === "floor" && <FloorOpen {...props} />}
    </g>
  );
}

function CurvesOpen({ reading, stages, width, height, units, hand }: Props) {
  const laid = stages.flatMap(({ clip, at_s }) => {
    const curve = clip.curves?.find((each) => each.reading === reading);
    return curve ? [{ clip, at_s, curve }] : [];
  });
  const [first] = laid;
  if (!first) return null;
  const times = laid.flatMap(({ curve }) => curve.at_s);
  const [from, to] = [Math.min(...times), Math.max(...times)];
  const bounds = laid.flatMap(({ curve }) =>
    curve.values.flatMap((value, i) =>
      value === null ? [] : [value - (curve.u95[i] ?? 0), value + (curve.u95[i] ?? 0)],
    ),
  );
  const { unit } = first.curve;
  const scale = tapeScale(bounds, unit, units);
  const told = laid.flatMap(({ clip, at_s, curve }) => {
    const found = at_s === null ? null : valueAt(curve, at_s);
    const what = clip.whose === "student" ? nameOf(reading, hand) : "reference";
    return found ? [`${what}: ${readWords(reading, found.value, unit, units, hand)}`] : [];
  });
  const lines = told.length ? told : [nameOf(reading, hand)];
  const top = lines.length * ROW + 4;
  const x = (at_s: number) => PAD + ((at_s - from) / Math.max(to - from, 0.01)) * (width - 2 * PAD);
  const y = (value: number) => top + (1 - scale.at(value)) * (height - top - 6);
  return (
    <>
      <line x1={PAD} x2={width - PAD} y1={y(0)} y2={y(0)} stroke={PAPER} strokeOpacity={0.45} />
      <line x1={x(0)} x2={x(0)} y1={top} y2={height} stroke={BRASS} strokeOpacity={0.8} />
      {laid.map(({ clip, at_s, curve }) => (
        <g key={clip.id} stroke={INK[clip.whose]} fill="none">
          <polyline
            points={curve.values
              .flatMap((value, i) =>
                value === null ? [] : [`${x(curve.at_s[i] ?? 0).toFixed(1)},${y(value).toFixed(1)}`],
              )
              .join(" ")}
            strokeDasharray="2 4"
            strokeOpacity={0.7}
          />
          {stretches(curve.values).map(([begin, end]) => {
            if (begin === end)
              return <Alone key={begin} at={x(curve.at_s[begin] ?? 0)} y={y} of={curve} i={begin} />;
            const at = Array.from({ length: end - begin + 1 }, (_, i) => begin + i);
            const point = (i: number, way: -1 | 0 | 1) =>
              `${x(curve.at_s[i] ?? 0).toFixed(1)},${y((curve.values[i] ?? 0) + way * (curve.u95[i] ?? 0)).toFixed(1)}`;
            const ribbon = [...at.map((i) => point(i, 1)), ...at.toReversed().map((i) => point(i, -1))];
            return (
              <g key={begin}>
                <polygon points={ribbon.join(" ")} fill={INK[clip.whose]} fillOpacity={0.25} stroke="none" />
                <polyline points={at.map((i) => point(i, 0)).join(" ")} strokeWidth={2} />
              </g>
            );
          })}
          {at_s !== null && (
            <line x1={x(at_s)} x2={x(at_s)} y1={top} y2={height} strokeDasharray="3 3" strokeWidth={1.5} />
          )}
        </g>
      ))}
      {lines.map((line, i) => (
        <text key={line} x={PAD} y={(i + 1) * ROW - 3} fontSize={12} fill={PAPER}>
          {line}
        </text>
      ))}
    </>
  );
}

/** A value with none on the frames beside it, with its error. */
function Alone(props: { at: number; y: (value: number) => number; of: Schemas["WalkCurve"]; i: number }) {
  const { at, y, of, i } = props;
  const [value, u95] = [of.values[i] ?? 0, of.u95[i] ?? 0];
  return (
    <>
      <line x1={at} x2={at} y1={y(value + u95)} y2={y(value - u95)} strokeOpacity={0.8} />
      <circle cx={at} cy={y(value)} r={3} fill="#10201D" strokeWidth={1.8} />
    </>
  );
}

/** When each part starts, from the top to impact, one lane above the other. */
function RelayOpen({ stages, width, height, hand }: Props) {
  const runs = stages.flatMap(({ clip }) => {
    const top = clip.pegs.find(({ name }) => name === "top")?.frame;
    const top_s = top === undefined ? undefined : clip.from_impact_s?.[top];
    return clip.starts?.length && top_s !== undefined ? [{ clip, impact: -top_s }] : [];
  });
  const all = runs.flatMap(({ clip, impact }) => [
    impact,
    ...(clip.starts ?? []).flatMap(({ value, u95 }) => [value - u95, value + u95]),
  ]);
  if (!all.length) return null;
  const [from, to] = [Math.min(-0.1, ...all), Math.max(...all)];
  const x = (seconds: number) => NAMES + ((seconds - from) / (to - from)) * (width - NAMES - PAD);
  const lane = (height - 4) / LANES.length;
  return (
    <>
      {LANES.map((part, i) => (
        <text key={part} x={PAD} y={i * lane + lane * 0.68} fontSize={12} fill={PAPER}>
          {sidesOf((PART_WORDS[part] ?? part).toLowerCase(), hand)}
        </text>
      ))}
      {runs.map(({ clip, impact }, row) => (
        <g key={clip.id} fill={INK[clip.whose]} stroke={INK[clip.whose]}>
          {(clip.starts ?? []).map(({ part, value, u95 }) => {
            const i = LANES.indexOf(part);
            if (i < 0) return null;
            const y = i * lane + lane * (row ? 0.54 : 0.14);
            const thick = lane * 0.32;
            return (
              <g key={part}>
                <rect
                  x={x(value)}
                  y={y}
                  width={Math.max(x(impact) - x(value), 0)}
                  height={thick}
                  fillOpacity={0.35}
                  stroke="none"
                />
                <rect x={x(value) - 1.5} y={y} width={3} height={thick} stroke="none" />
                <line x1={x(value - u95)} x2={x(value + u95)} y1={y + thick / 2} y2={y + thick / 2} />
              </g>
            );
          })}
          <line x1={x(impact)} x2={x(impact)} y1={0} y2={height} strokeDasharray="3 3" />
        </g>
      ))}
      <line x1={x(0)} x2={x(0)} y1={0} y2={height} stroke={BRASS} strokeWidth={2} />
    </>
  );
}

/** Shoes and hips seen from above; the target lies to the left, for a left-hander to the right. */
function FloorOpen({ stages, width, height }: Props) {
  const whose = (side: "student" | "reference") => {
    const found = stages.find(({ clip }) => clip.whose === side && clip.floor?.length);
    return found && { marks: found.clip.floor ?? [], moment: momentOf(found) };
  };
  const plans = { student: whose("student"), reference: whose("reference") };
  const [main] = stages;
  const left = main?.clip.hand === "left";
  const layout = layOut(plans, left);
  if (!layout) return null;
  const scale = Math.min(width / WIDTH, height / HEIGHT);
  return (
    <g transform={`translate(${(width - WIDTH * scale) / 2} 0) scale(${scale})`}>
      {SIDES.map((side) => {
        const plan = plans[side];
        return (
          plan && (
            <FloorShapes key={side} marks={plan.marks} at={layout.at} ink={INK[side]} here={plan.moment} />
          )
        );
      })}
      <g transform={`translate(${left ? WIDTH + 14 : -14} ${HEIGHT / 2})`} fill={PAPER}>
        <text y={-10} fontSize={13} textAnchor="middle">
          target
        </text>
        <path
          d={left ? "M-18 0H14M6 -5L14 0L6 5" : "M18 0H-14M-6 -5L-14 0L-6 5"}
          stroke={PAPER}
          fill="none"
        />
      </g>
    </g>
  );
}

/** The checkpoint at which a stage stands, if it stands on one. */
function momentOf({ clip, at_s }: Standing): string | undefined {
  return clip.pegs.find(({ frame }) => at_s !== null && clip.from_impact_s?.[frame] === at_s)?.name;
}

/** Whether there is anything to be drawn of what lay open. */
export function canBeDrawn(drawer: { part: string; reading: string } | null, clips: WalkClip[]): boolean {
  if (drawer?.part === "curves")
    return clips.some((clip) => clip.curves?.some(({ reading }) => reading === drawer.reading));
  if (drawer?.part === "floor")
    return clips.some((clip) => clip.floor?.some(({ name }) => name.endsWith("toe")));
  return drawer?.part === "relay" && clips.some((clip) => (clip.starts?.length ?? 0) > 0);
}
