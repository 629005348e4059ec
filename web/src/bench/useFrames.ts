import { type RefObject, useCallback, useEffect, useRef, useState } from "react";
import { type FrameStore, holdFrames } from "./frameStore";
import type { Size, View } from "./stageView";

interface Drawn {
  frame: number | null;
  error: Error | null;
}

/**
 * Opens a clip's frames and draws the wanted one on a canvas. `frame` is the number of the frame
 * that is on the canvas now, so that what is said about it is always true of what is seen.
 */
export function useFrames(
  url: string,
  wanted: number,
  direction: 1 | -1,
  canvas: RefObject<HTMLCanvasElement | null>,
  view: View | null,
  stage: Size,
  picture: Size,
): Drawn & { bitmap: RefObject<ImageBitmap | undefined> } {
  const [store, setStore] = useState<FrameStore | null>(null);
  const [drawn, setDrawn] = useState<Drawn>({ frame: null, error: null });
  const bitmap = useRef<ImageBitmap | undefined>(undefined);

  useEffect(() => {
    let gone = false;
    setDrawn({ frame: null, error: null });
    const held = holdFrames(url);
    held.store.then(
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
  }, [url]);

  const draw = useCallback(
    (image: ImageBitmap, frame: number) => {
      const target = canvas.current;
      const context = target?.getContext("2d");
      if (!target || !context || !view) return;
      const dense = window.devicePixelRatio || 1;
      const width = Math.round(stage.width * dense);
      const height = Math.round(stage.height * dense);
      if (target.width !== width || target.height !== height) {
        target.width = width;
        target.height = height;
      }
      const side = view.mirrored ? -1 : 1;
      const scale = view.scale * dense;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, width, height);
      context.setTransform(
        side * scale,
        0,
        0,
        scale,
        width / 2 - side * view.cx * scale,
        height / 2 - view.cy * scale,
      );
      context.imageSmoothingEnabled = view.scale < 3;
      context.drawImage(image, 0, 0, picture.width, picture.height);
      bitmap.current = image;
      setDrawn((now) => (now.frame === frame ? now : { frame, error: null }));
    },
    [canvas, view, stage.width, stage.height, picture.width, picture.height],
  );

  useEffect(() => {
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

  return { ...drawn, bitmap };
}
