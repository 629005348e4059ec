import type { Size, View } from "../../drawn/stageView";
import type { Showing } from "../score";

const LEAST_WIDTH = 0.62; // of what the bench's stage showed, on a narrower one

/** How a stage of another size shows what the bench's did: as high, unless too much of its sides were lost. */
export function walkView({ cx, cy, high, wide, mirrored }: Showing, stage: Size): View {
  return { scale: Math.min(stage.height / high, stage.width / (LEAST_WIDTH * wide)), cx, cy, mirrored };
}
