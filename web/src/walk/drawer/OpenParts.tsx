import type { Units } from "../../units";
import type { Hand } from "../../words";
import type { WalkClip } from "../player/SceneOverlay";
import type { Scene, Side } from "../score";
import { canBeDrawn, DrawerLayer, type Standing } from "./DrawerLayer";
import { TAPE_HIGH, TapeLayer, tapesOf } from "./TapeLayer";

const HIGH = { curves: 128, relay: 128, floor: 176, pressure: 0 };

/** How high what lies open is, px of the player: the tape that is looked into, and a curve or the relay. */
export function openHigh(scene: Scene, standings: Standing[]): number {
  const clips = standings.map(({ clip }) => clip);
  const tape = tapesOf(scene.tape, clips).length ? TAPE_HIGH : 0;
  return tape + (scene.drawer && canBeDrawn(scene.drawer, clips) ? HIGH[scene.drawer.part] : 0);
}

/** What lies open beneath the stages, in a width of px: the same in the player and in the film. */
export function OpenParts(props: {
  scene: Scene;
  standings: Standing[];
  width: number;
  units: Units;
  hand: Hand;
}) {
  const { scene, standings, width, units, hand } = props;
  const clips = standings.map(({ clip }) => clip);
  const tapes = tapesOf(scene.tape, clips);
  const { drawer } = scene;
  const part = drawer?.part;
  return (
    <>
      {tapes.length > 0 && <TapeLayer {...{ tapes, width, units, hand }} />}
      {drawer && part && part !== "pressure" && canBeDrawn(drawer, clips) && (
        <g transform={`translate(0 ${tapes.length ? TAPE_HIGH : 0})`}>
          <DrawerLayer
            {...{ part, width, units, hand }}
            reading={drawer.reading}
            stages={standings}
            height={HIGH[part]}
          />
        </g>
      )}
    </>
  );
}

/** Each stage's clip, and when it stands, seconds from impact. */
export function standingsOf(scene: Scene, clips: Map<string, WalkClip>, sides: Side[], by = 0): Standing[] {
  return sides.flatMap((side) => {
    const shown = scene.stages[side];
    const clip = shown && clips.get(shown.clip);
    return clip ? [{ clip, at_s: clip.from_impact_s?.[shown.frame + by] ?? null }] : [];
  });
}
