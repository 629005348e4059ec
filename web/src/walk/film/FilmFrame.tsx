import type { Schemas } from "../../api/client";
import type { Units } from "../../units";
import { type Hand, sidesOf } from "../../words";
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

const [WIDE, HIGH, STAGES_HIGH] = [720, 1080, 900];
const [PINE, PAPER, BRASS, DUSK] = ["#16302B", "#F6F3EA", "#B8892B", "#10201D"];
const LETTERS_A_LINE = 56;
const MOST_LINES = 3;

/** All of a film's picture but what was filmed: the stages are left open. */
export function FilmFrame(props: {
  scene: Scene;
  stages: FilmStage[];
  clips: Map<string, WalkClip>;
  told: Told;
  units: Units;
  hand: Hand;
}) {
  const { scene, stages, clips, told, units, hand } = props;
  const along = (ms: number) => 24 + ((WIDE - 48) * ms) / Math.max(told.length_ms, 1);
  const lines = wrapped(sidesOf(told.caption, hand), LETTERS_A_LINE).slice(0, MOST_LINES);
  return (
    <svg
      aria-hidden="true"
      xmlns="http://www.w3.org/2000/svg"
      width={WIDE}
      height={HIGH}
      viewBox={`0 0 ${WIDE} ${HIGH}`}
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
      <rect x={0} y={STAGES_HIGH} width={WIDE} height={HIGH - STAGES_HIGH} fill={PINE} />
      <rect x={24} y={STAGES_HIGH + 22} width={WIDE - 48} height={2} fill={PAPER} fillOpacity={0.4} />
      <rect x={24} y={STAGES_HIGH + 20} width={Math.max(0, along(told.ms) - 24)} height={6} fill={BRASS} />
      {told.chapters.map(({ at, name }) => (
        <rect key={`${at} ${name}`} x={along(at)} y={STAGES_HIGH + 15} width={2} height={16} fill={BRASS} />
      ))}
      <text x={24} y={STAGES_HIGH + 56} fontSize={20} fill={PAPER} fillOpacity={0.85}>
        {told.title}
      </text>
      <text className="num" x={WIDE - 24} y={STAGES_HIGH + 56} fontSize={18} fill={PAPER} textAnchor="end">
        {minutes(told.ms)} of {minutes(told.length_ms)}
      </text>
      {lines.map((line, i) => (
        <text key={line} x={24} y={STAGES_HIGH + 92 + 32 * i} fontSize={24} fill={PAPER}>
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
