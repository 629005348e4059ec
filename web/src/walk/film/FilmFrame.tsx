import type { Schemas } from "../../api/client";
import { ChalkLayer } from "../../drawn/ChalkLayer";
import type { Point } from "../../drawn/stageView";
import type { Units } from "../../units";
import { type Hand, sidesOf } from "../../words";
import { OpenParts, openHigh, standingsOf } from "../drawer/OpenParts";
import { SceneOverlay, type WalkClip } from "../player/SceneOverlay";
import type { Scene } from "../score";
import { stageSays } from "../stageSays";
import { minutes } from "../words";
import type { FilmStage } from "./film";
import { wrapped } from "./wrapped";

/** What the film says beneath its stages. */
export interface Told {
  title: string;
  caption: string;
  ms: number;
  length_ms: number;
  chapters: Schemas["Chapter"][];
}

const SVG = "http://www.w3.org/2000/svg";
const [WIDE, STAGES_HIGH, FOOT_HIGH] = [720, 900, 180];
const [PINE, PAPER, BRASS, DUSK] = ["#16302B", "#F6F3EA", "#B8892B", "#10201D"];
const SAYS_HIGH = 30;
const CLOSER = 1.6; // what lies open is read on a phone: as large as in the player
const LETTERS_A_LINE = 56;
const MOST_LINES = 3;

/** What lies over the stages, but for the pointer: gauges, chalk, and whose frame it is. */
export function FilmStages(props: {
  scene: Scene;
  stages: FilmStage[];
  clips: Map<string, WalkClip>;
  units: Units;
  hand: Hand;
}) {
  const { scene, stages, clips, units, hand } = props;
  return (
    <svg
      aria-hidden="true"
      xmlns={SVG}
      width={WIDE}
      height={STAGES_HIGH}
      viewBox={`0 0 ${WIDE} ${STAGES_HIGH}`}
    >
      {stages.map((stage) => {
        const clip = clips.get(stage.clip);
        if (!clip) return null;
        const { side, frame, view, size } = stage;
        return (
          <svg aria-hidden="true" key={side} x={stage.left} y={0} width={size.width} height={size.height}>
            <SceneOverlay {...{ scene, side, clip, frame, view, size, units, hand }} />
            <StageSays clip={clip} frame={frame} high={size.height} />
          </svg>
        );
      })}
      {stages.length > 1 && <rect x={WIDE / 2 - 2} y={0} width={4} height={STAGES_HIGH} fill={PINE} />}
      <FilmDrawer {...props} />
    </svg>
  );
}

/** What lay open, over the stages' foot. */
function FilmDrawer(props: Parameters<typeof FilmStages>[0]) {
  const { scene, stages, clips, units, hand } = props;
  const standings = standingsOf(
    scene,
    clips,
    stages.map(({ side }) => side),
  );
  const high = openHigh(scene, standings) * CLOSER;
  return (
    <g transform={`translate(0 ${STAGES_HIGH - SAYS_HIGH - high}) scale(${CLOSER})`}>
      <OpenParts {...{ scene, standings, units, hand }} width={WIDE / CLOSER} />
    </g>
  );
}

/** The pointer alone, in the part of its stage that `box` is. */
export function FilmPointer(props: {
  at: Point;
  box: { left: number; top: number; width: number; height: number };
}) {
  const { at, box } = props;
  const { left, top, width, height } = box;
  return (
    <svg
      aria-hidden="true"
      xmlns={SVG}
      width={width}
      height={height}
      viewBox={`${left} ${top} ${width} ${height}`}
    >
      <ChalkLayer strokes={[]} pointer={at} place={(point) => point} />
    </svg>
  );
}

/** What stands beneath the stages: how far the walk is, its chapters, its words. */
export function FilmFoot({ told, hand }: { told: Told; hand: Hand }) {
  const along = (ms: number) => 24 + ((WIDE - 48) * ms) / Math.max(told.length_ms, 1);
  const lines = wrapped(sidesOf(told.caption, hand), LETTERS_A_LINE).slice(0, MOST_LINES);
  return (
    <svg aria-hidden="true" xmlns={SVG} width={WIDE} height={FOOT_HIGH} viewBox={`0 0 ${WIDE} ${FOOT_HIGH}`}>
      <rect x={0} y={0} width={WIDE} height={FOOT_HIGH} fill={PINE} />
      <rect x={24} y={22} width={WIDE - 48} height={2} fill={PAPER} fillOpacity={0.4} />
      <rect x={24} y={20} width={Math.max(0, along(told.ms) - 24)} height={6} fill={BRASS} />
      {told.chapters.map(({ at, name }) => (
        <rect key={`${at} ${name}`} x={along(at)} y={15} width={2} height={16} fill={BRASS} />
      ))}
      <text x={24} y={56} fontSize={20} fill={PAPER} fillOpacity={0.85}>
        {told.title}
      </text>
      <text className="num" x={WIDE - 24} y={56} fontSize={18} fill={PAPER} textAnchor="end">
        {minutes(told.ms)} of {minutes(told.length_ms)}
      </text>
      {lines.map((line, i) => (
        <text key={line} x={24} y={92 + 32 * i} fontSize={24} fill={PAPER}>
          {line}
        </text>
      ))}
    </svg>
  );
}

function StageSays({ clip, frame, high }: { clip: WalkClip; frame: number; high: number }) {
  const said = stageSays(clip, frame);
  return (
    <>
      <rect x={0} y={high - 30} width={said.length * 10.2 + 34} height={30} fill={DUSK} fillOpacity={0.8} />
      <circle cx={16} cy={high - 15} r={6} fill={clip.whose === "student" ? "#C4572E" : "#2F5D8A"} />
      <text className="num" x={28} y={high - 9} fontSize={17} fill={PAPER}>
        {said}
      </text>
    </>
  );
}
