import type { Units } from "../../units";
import { number, unitSign } from "../../units";
import { forStudent, gaugeForStudent, type Hand } from "../../words";
import type { Scene, Side } from "../score";
import type { WalkClip } from "./SceneOverlay";

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
    for (const gauge of clip.gauges.filter(({ id }) => scene.gauges.includes(id))) {
      if (gauge.lines.length) lines.add(gaugeForStudent(gauge.id, hand));
      for (const { frame, reading, value, u95, unit } of gauge.shapes) {
        if (frame !== shown.frame + by || value == null || u95 == null) continue;
        const amount = `${number(Math.abs(value), unit, units)} ${unitSign(unit, units)}`;
        const error = `± ${number(u95, unit, units)} ${unitSign(unit, units)}`;
        said.push({
          key: `${side} ${gauge.id} ${reading}`,
          whose: clip.whose === "student" ? "You" : clip.name,
          words: `${forStudent(reading, amount, value, hand)} (${error})`,
        });
      }
    }
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
