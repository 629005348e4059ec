import { useRef } from "react";
import { useSize } from "../../parts/useSize";
import type { Units } from "../../units";
import type { Hand } from "../../words";
import { OpenParts, openHigh, standingsOf } from "../drawer/OpenParts";
import type { Scene, Side } from "../score";
import type { WalkClip } from "./SceneOverlay";

/** What lay open beneath the stages, with where each stage stands on it. */
export function OpenDrawer(props: {
  scene: Scene;
  clips: Map<string, WalkClip>;
  sides: Side[];
  by: number; // frames that the student has stepped
  units: Units;
  hand: Hand;
}) {
  const { scene, clips, sides, by, units, hand } = props;
  const box = useRef<HTMLDivElement>(null);
  const { width } = useSize(box);
  const standings = standingsOf(scene, clips, sides, by);
  return (
    <div ref={box}>
      <svg className="block w-full" height={openHigh(scene, standings)} aria-hidden="true">
        {width > 0 && <OpenParts {...{ scene, standings, width, units, hand }} />}
      </svg>
    </div>
  );
}
