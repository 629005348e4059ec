import type { Schemas } from "../api/client";
import { fromImpact } from "../units";
import { CHECKPOINTS, momentWords } from "../words";

type Clip = Pick<Schemas["WalkClip"], "pegs" | "from_impact_s" | "whose" | "name">;

const IN_ORDER: string[] = CHECKPOINTS.map(([name]) => name);

/** The checkpoint that a frame is pegged as, if it is one. */
export const momentAt = (clip: Clip, frame: number): string | undefined =>
  clip.pegs.find((peg) => peg.frame === frame && IN_ORDER.includes(peg.name))?.name;

/** What stands under a stage: the moment or the time, and whose swing it is when it is not one's own. */
export function stageSays(clip: Clip, frame: number): string {
  const moment = momentAt(clip, frame);
  const time = clip.from_impact_s?.[frame];
  const when = moment
    ? momentWords(moment).toLowerCase()
    : time != null
      ? fromImpact(time)
      : `frame ${frame}`;
  return clip.whose === "student" ? when : `${when} · ${clip.name}`;
}
