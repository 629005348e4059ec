import { createElement } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import type { Schemas } from "../../api/client";
import { type Size, toStage, type View } from "../../drawn/stageView";
import type { Units } from "../../units";
import type { Hand } from "../../words";
import type { WalkClip } from "../player/SceneOverlay";
import { walkView } from "../player/walkView";
import { type Scene, type Score, ScoreReader, type Side } from "../score";
import { FilmFoot, FilmPointer, FilmStages, type Told } from "./FilmFrame";

export const FILM: Size = { width: 720, height: 1080 };
export const STAGES: Size = { width: 720, height: 900 };
const BETWEEN = 4; // two stages, px
const TOLD_EVERY_MS = 250; // how far it is

/** A stage in the film: which frame of which clip, where, and how it is looked at. */
export interface FilmStage {
  side: Side;
  clip: string;
  frame: number;
  left: number;
  size: Size;
  view: View;
}

/** A part of what lies over the stages; no markup where it is as it was at the moment asked before. */
export interface FilmLayer {
  name: "stages" | "foot" | "pointer";
  left: number;
  top: number;
  svg: string | null;
}

/** What the film shows at a moment. */
export interface FilmPicture {
  stages: FilmStage[];
  layers: FilmLayer[];
}

const POINTED = 40; // half of the pointer's own square, px

/** A walk as a film: the same scenes as in the player, drawn by the same parts, on stages of a fixed size. */
export function filmOf(walk: Schemas["PlayedWalk"], title: string, units: Units, hand: Hand) {
  const reader = new ScoreReader(walk.score as Score);
  const clips = new Map(walk.clips.map((clip) => [clip.id, clip]));
  // What changes 30 times a second is small: drawing the whole anew each time would take longer than the walk.
  let before: { scene: Scene; told: Told } | null = null;
  return (ms: number): FilmPicture => {
    const scene = reader.at(ms);
    const stages = stagesOf(scene, clips);
    const chapter = walk.chapters.findLast(({ at }) => at <= ms + 1);
    const told: Told = {
      title,
      caption: (chapter && walk.captions[chapter.name]) || "",
      ms: Math.floor(ms / TOLD_EVERY_MS) * TOLD_EVERY_MS,
      length_ms: walk.length_ms,
      chapters: walk.chapters,
    };
    const had = before?.scene;
    const sameStages =
      had?.stages === scene.stages &&
      had.gauges === scene.gauges &&
      had.chalk === scene.chalk &&
      had.solo === scene.solo &&
      had.drawer === scene.drawer &&
      had.tape === scene.tape;
    const sameFoot = before?.told.ms === told.ms && before.told.caption === told.caption;
    before = { scene, told };
    const overStages = () =>
      renderToStaticMarkup(
        createElement(FilmStages, { scene: { ...scene, pointer: null }, stages, clips, units, hand }),
      );
    const foot = () => renderToStaticMarkup(createElement(FilmFoot, { told, hand }));
    return {
      stages,
      layers: [
        { name: "stages", left: 0, top: 0, svg: sameStages ? null : overStages() },
        ...pointerOf(scene, stages),
        { name: "foot", left: 0, top: STAGES.height, svg: sameFoot ? null : foot() },
      ],
    };
  };
}

/** The pointer in a square of its own, as far as that lies on its stage. */
function pointerOf({ pointer }: Scene, stages: FilmStage[]): FilmLayer[] {
  const stage = pointer && stages.find(({ side }) => side === pointer.side);
  if (!pointer || !stage) return [];
  const at = toStage(pointer, stage.view, stage.size);
  const [left, top] = [Math.max(0, Math.floor(at.x - POINTED)), Math.max(0, Math.floor(at.y - POINTED))];
  const width = Math.min(stage.size.width, Math.ceil(at.x + POINTED)) - left;
  const height = Math.min(stage.size.height, Math.ceil(at.y + POINTED)) - top;
  if (width <= 0 || height <= 0) return [];
  const svg = renderToStaticMarkup(createElement(FilmPointer, { at, box: { left, top, width, height } }));
  return [{ name: "pointer", left: stage.left + left, top, svg }];
}

function stagesOf(scene: Scene, clips: Map<string, WalkClip>): FilmStage[] {
  const there = (["student", "reference"] as const).filter((side) =>
    clips.has(scene.stages[side]?.clip ?? ""),
  );
  const { solo } = scene;
  const sides = solo && there.includes(solo) ? [solo] : there;
  const width = sides.length > 1 ? (STAGES.width - BETWEEN) / 2 : STAGES.width;
  return sides.flatMap((side, i) => {
    const shown = scene.stages[side];
    const clip = shown && clips.get(shown.clip);
    if (!shown || !clip) return [];
    const size = { width, height: STAGES.height };
    const frame = Math.min(shown.frame, clip.frame_count - 1);
    const left = i * (width + BETWEEN);
    return [{ side, clip: clip.id, frame, left, size, view: walkView(shown.showing, clip, size) }];
  });
}
