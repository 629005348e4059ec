import { type RefObject, useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import type { ClipOut } from "../api/queries";
import { type ClipFrames, holdFrames } from "./clipFrames";
import type { Size, View } from "./stageView";

interface Drawn {
  frame: number | null;
  error: Error | null;
}

type Picture = Size & Pick<ClipOut, "id" | "flipped" | "frame_count">;

/**
 * Opens a clip's frames and draws the wanted one on a canvas. `frame` is the number of the frame
 * that is on the canvas now, so that what is said about it is always true of what is seen.
 */
export function useFrames(
  clip: Picture,
  wanted: number,
  direction: 1 | -1,
  canvas: RefObject<HTMLCanvasElement | null>,
  view: View | null,
  stage: Size,
): Drawn & { exact: ClipFrames["exact"] | null; bitmap: RefObject<ImageBitmap | undefined> } {
  const { id, flipped, frame_count, width, height } = clip;
  const [store, setStore] = useState<ClipFrames | null>(null);
  const [drawn, setDrawn] = useState<Drawn>({ frame: null, error: null });
  const bitmap = useRef<ImageBitmap | undefined>(undefined);

  useEffect(() => {
    let gone = false;
    setDrawn({ frame: null, error: null });
    const held = holdFrames({ id, flipped, frame_count });
    held.frames.then(
      (store) => {
        if (!gone) setStore(store);
      },
      (error: Error) => setDrawn({ frame: null, error }),
    );
    return () => {
      gone = true;
      setStore(null);
      held.letGo();
    };
  }, [id, flipped, frame_count]);

  const draw = useCallback(
    (image: ImageBitmap, frame: number) => {
      const target = canvas.current;
      const context = target?.getContext("2d");
      if (!target || !context || !view) return;
      const dense = window.devicePixelRatio || 1;
      const across = Math.round(stage.width * dense);
      const down = Math.round(stage.height * dense);
      if (target.width !== across || target.height !== down) {
        target.width = across;
        target.height = down;
      }
      const side = view.mirrored ? -1 : 1;
      const scale = view.scale * dense;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, across, down);
      context.setTransform(
        side * scale,
        0,
        0,
        scale,
        across / 2 - side * view.cx * scale,
        down / 2 - view.cy * scale,
      );
      context.imageSmoothingEnabled = view.scale < 3;
      context.drawImage(image, 0, 0, width, height);
      bitmap.current = image;
      setDrawn((now) => (now.frame === frame ? now : { frame, error: null }));
    },
    [canvas, view, stage.width, stage.height, width, height],
  );

  // In the same turn as the step that asked for it: a frame at hand is drawn before the screen is.
  useLayoutEffect(() => {
    if (!store || !view) return;
    let stale = false;
    const have = store.cached(wanted);
    if (have) draw(have, wanted);
    store.frame(wanted, direction).then(
      (image) => {
        if (image && !stale && !have) draw(image, wanted);
      },
      (error: Error) => setDrawn((now) => ({ ...now, error })),
    );
    return () => {
      stale = true;
    };
  }, [store, wanted, direction, draw, view]);

  return { ...drawn, exact: store?.exact ?? null, bitmap };
}
