import { useRef } from "react";
import { useSize } from "../../parts/useSize";
import type { Units } from "../../units";
import type { Hand } from "../../words";
import { canBeDrawn, DrawerLayer } from "../drawer/DrawerLayer";
import type { Scene, Side } from "../score";
import type { WalkClip } from "./SceneOverlay";

/** What lay open beneath the stages, a curve or the relay, with where each stage stands on it. */
export function OpenDrawer(props: {
  scene: Scene;
  clips: Map<string, WalkClip>;
  sides: Side[];
  by: number; // frames that the student has stepped
  units: Units;
  hand: Hand;
}) {
  const { scene, clips, sides, by, units, hand } = props;
  const { drawer } = scene;
  const stages = standingsOf(scene, clips, sides, by);
  const part = drawer?.part;
  if (part !== "curves" && part !== "relay") return null;
  if (
    !canBeDrawn(
      drawer,
      stages.map(({ clip }) => clip),
    )
  )
    return null;
  return <Drawn part={part} reading={drawer?.reading ?? ""} stages={stages} units={units} hand={hand} />;
}

function Drawn(props: Omit<Parameters<typeof DrawerLayer>[0], "width" | "height">) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  return (
    <div ref={box} className="h-32 border-t-2 border-pine">
      <svg className="block h-full w-full" aria-hidden="true">
        {height > 0 && <DrawerLayer {...props} width={width} height={height} />}
      </svg>
    </div>
  );
}

/** Each stage's clip, and when it stands, seconds from impact. */
export function standingsOf(scene: Scene, clips: Map<string, WalkClip>, sides: Side[], by = 0) {
  return sides.flatMap((side) => {
    const shown = scene.stages[side];
    const clip = shown && clips.get(shown.clip);
    return clip ? [{ clip, at_s: clip.from_impact_s?.[shown.frame + by] ?? null }] : [];
  });
}
