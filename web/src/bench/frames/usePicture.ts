import { type RefObject, useEffect } from "react";
import type { ClipOut } from "../../api/queries";
import { holdFrames } from "./clipFrames";

type Clip = Pick<ClipOut, "id" | "flipped" | "frame_count">;

/** Draws a small picture of a frame on a canvas, out of the frames that the browser has anyway. */
export function usePicture(
  clip: Clip,
  frame: number | undefined,
  height: number,
  canvas: RefObject<HTMLCanvasElement | null>,
): void {
  const { id, flipped, frame_count } = clip;
  useEffect(() => {
    if (frame === undefined) return;
    let gone = false;
    const held = holdFrames({ id, flipped, frame_count }, frame);
    held.frames
      .then((frames) => (gone ? undefined : frames.small(frame, height)))
      .then((picture) => {
        const target = canvas.current;
        if (picture && target && !gone) {
          target.width = picture.width;
          target.height = picture.height;
          target.getContext("2d")?.drawImage(picture, 0, 0);
          target.dataset.drawn = `${frame}`;
        }
        picture?.close();
      })
      .catch(() => undefined); // the stage says what is wrong with the clip
    return () => {
      gone = true;
      held.letGo();
    };
  }, [id, flipped, frame_count, frame, height, canvas]);
}
