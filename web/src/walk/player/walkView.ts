import { held, type Size, type View } from "../../drawn/stageView";
import type { Showing } from "../score";

const LEAST_WIDTH = 0.62; // of what the bench's stage showed, on a narrower one

/**
 * How a stage of another size shows what the bench's did: as high, unless too much of its sides were lost, and never
 * so small that nothing would be seen above and below the picture.
 */
export function walkView({ cx, cy, high, wide, mirrored }: Showing, picture: Size, stage: Size): View {
  const wanted = Math.min(stage.height / high, stage.width / (LEAST_WIDTH * wide));
  const scale = Math.max(wanted, Math.min(stage.height / picture.height, stage.height / high));
  return held({ scale, cx, cy, mirrored }, picture, stage);
}
