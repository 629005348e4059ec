import { type RefObject, useEffect } from "react";
import type { ClipOut } from "../../api/queries";
import { holdFrames } from "../../frames/clipFrames";
import { sourceOf } from "../../frames/source";

type Clip = Pick<ClipOut, "id" | "flipped" | "frame_count" | "width" | "height">;

/** A part of the picture, px. */
interface Part {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** Draws a small picture of a part of a frame on a canvas, out of the frames that the browser has anyway. */
export function usePicture(
  clip: Clip,
  frame: number | undefined,
  high: number, // px, the whole picture
  part: Part,
  canvas: RefObject<HTMLCanvasElement | null>,
): void {
  const { id, flipped, frame_count, height } = clip;
  const { left, right, top, bottom } = part;
  useEffect(() => {
    if (frame === undefined) return;
    let gone = false;
    const held = holdFrames(sourceOf({ id, flipped, frame_count }), frame);
    held.frames
      .then((frames) => (gone ? undefined : frames.small(frame, high)))
      .then((picture) => {
        const target = canvas.current;
        if (picture && target && !gone) {
          const scale = picture.height / height;
          const size = [(right - left) * scale, (bottom - top) * scale] as const;
          [target.width, target.height] = [Math.round(size[0]), Math.round(size[1])];
          const context = target.getContext("2d");
          context?.drawImage(picture, left * scale, top * scale, ...size, 0, 0, target.width, target.height);
          target.dataset.drawn = `${frame}`;
        }
        picture?.close();
      })
      .catch(() => undefined); // the stage says what is wrong with the clip
    return () => {
      gone = true;
      held.letGo();
    };
  }, [id, flipped, frame_count, height, left, right, top, bottom, frame, high, canvas]);
}
