import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { ChalkLayer } from "../../drawn/ChalkLayer";
import { moved } from "../../drawn/cameraMotion";
import { GaugeLayer } from "../../drawn/GaugeLayer";
import { INK } from "../../drawn/ink";
import { type Point, type Size, toStage, type View } from "../../drawn/stageView";
import type { Units } from "../../units";
import type { Hand } from "../../words";
import type { Scene, Side } from "../score";

export type WalkClip = Schemas["WalkClip"];

export interface Overlaid {
  scene: Scene;
  side: Side;
  clip: WalkClip;
  frame: number;
  view: View;
  size: Size;
  units: Units;
  hand: Hand; // of the student who reads it
}

/** All that lies over a stage's picture in a walk: gauges, chalk, the pointer. The same in the player and in the film. */
export function SceneOverlay({ scene, side, clip, frame, view, size, units, hand }: Overlaid) {
  const shown = scene.gauges;
  const gauges = useMemo(() => clip.gauges.filter(({ id }) => shown.includes(id)), [clip.gauges, shown]);
  const place = (point: Point) => toStage(point, view, size);
  const placeStill = (point: Point) => place(moved(clip.camera_motion, frame, point));
  const chalk = scene.chalk.filter((stroke) => stroke.clip === clip.id && stroke.frame === frame);
  const pointer = scene.pointer?.side === side ? scene.pointer : null;
  return (
    <>
      <GaugeLayer
        gauges={gauges}
        frame={frame}
        place={placeStill}
        wide={size.width}
        units={units}
        ink={INK[clip.whose]}
        hand={hand}
      />
      <ChalkLayer strokes={chalk} pointer={pointer} place={place} />
    </>
  );
}
