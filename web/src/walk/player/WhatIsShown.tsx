import type { Units } from "../../units";
import { gaugeForStudent, type Hand } from "../../words";
import type { Scene, Side } from "../score";
import type { WalkClip } from "./SceneOverlay";
import { saidOn } from "./saidOn";

/** What the lines on the stages are, and what they measure on this frame, in plain words. */
export function WhatIsShown(props: {
  scene: Scene;
  clips: Map<string, WalkClip>;
  sides: Side[];
  by: number;
  units: Units;
  hand: Hand;
}) {
  const { scene, clips, sides, by, units, hand } = props;
  const lines = new Set<string>();
  const said: { key: string; whose: string; words: string }[] = [];
  for (const side of sides) {
    const shown = scene.stages[side];
    const clip = shown && clips.get(shown.clip);
    if (!shown || !clip) continue;
    for (const gauge of clip.gauges)
      if (scene.gauges.includes(gauge.id) && gauge.lines.length) lines.add(gaugeForStudent(gauge.id, hand));
    for (const { gauge, reading, words } of saidOn(clip, scene.gauges, shown.frame + by, units, hand))
      said.push({
        key: `${side} ${gauge} ${reading}`,
        whose: clip.whose === "student" ? "You" : clip.name,
        words,
      });
  }
  if (!lines.size && !said.length) return null;
  return (
    <details className="border-t border-paper/20 px-3 py-2 text-sm">
      <summary className="cursor-pointer">What the lines say</summary>
      <ul className="mt-1 grid gap-1">
        {said.map(({ key, whose, words }) => (
          <li key={key}>
            {whose}: {words}
          </li>
        ))}
      </ul>
      {lines.size > 0 && <p className="mt-1 opacity-85">Lines: {[...lines].join("; ")}.</p>}
    </details>
  );
}
