import { number, type Units, unitSign } from "../../units";
import { forStudent, type Hand } from "../../words";
import type { WalkClip } from "./SceneOverlay";

/** What a gauge measures on a frame, in plain words with how sure it is. */
export interface Said {
  gauge: string;
  reading: string;
  words: string;
}

/** What the gauges of these ids measure on a frame of a clip; nothing of a value that nobody had looked at. */
export function saidOn(clip: WalkClip, ids: string[], frame: number, units: Units, hand: Hand): Said[] {
  return clip.gauges
    .filter(({ id }) => ids.includes(id))
    .flatMap(({ id, shapes }) =>
      shapes.flatMap(({ frame: on, reading, value, u95, unit }) => {
        if (on !== frame || value == null || u95 == null) return [];
        const amount = `${number(Math.abs(value), unit, units)} ${unitSign(unit, units)}`;
        const error = `± ${number(u95, unit, units)} ${unitSign(unit, units)}`;
        return [{ gauge: id, reading, words: `${forStudent(reading, amount, value, hand)} (${error})` }];
      }),
    );
}
