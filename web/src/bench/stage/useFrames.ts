import { type RefObject, useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import type { ClipOut } from "../../api/queries";
import { type ClipFrames, holdFrames } from "./clipFrames";
import type { Picture } from "./frameStore";
import type { Size, View } from "./stageView";

interface Drawn {
  frame: number | null;
  error: Error | null;
}

type Clip = Size & Pick<ClipOut, "id" | "flipped" | "frame_count">;

/**
 * Opens a clip's frames and draws the wanted one on a canvas. `frame` is the number of the frame
 * that is on the canvas now, so that what is said about it is always true of what is seen.
 */
export function useFrames(
  clip: Clip,
  wanted: number,
  direction: 1 | -1,
  canvas: RefObject<HTMLCanvasElement | null>,
  view: View | null,
  stage: Size,
): Drawn & { exact: ClipFrames["exact"] | null; image: () => ImageBitmap | undefined } {
  const { id, flipped, frame_count, width, height } = clip;
  const [store, setStore] = useState<ClipFrames | null>(null);
  const [drawn, setDrawn] = useState<Drawn>({ frame: null, error: null });
  const wishes = useRef(0);
  const shown = useRef(0);
  const latest = useRef<{ store: ClipFrames | null; draw: (image: Picture, frame: number) => void }>(null);

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
      latest.current = null;
      setStore(null);
      held.letGo();
    };
  }, [id, flipped, frame_count]);

  const draw = useCallback(
    (image: Picture, frame: number) => {
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
      setDrawn((now) => (now.frame === frame ? now : { frame, error: null }));
    },
    [canvas, view, stage.width, stage.height, width, height],
  );

  // In the same turn as the step that asked for it: a frame at hand is drawn before the screen is.
  useLayoutEffect(() => {
    if (!store || !view) return;
    latest.current = { store, draw };
    const wish = ++wishes.current;
    const show = (image: Picture) => {
      // While a hand is quicker than the decoder, each frame is shown as it comes, unless a later one was.
      if (wish < shown.current || latest.current?.store !== store) return;
      shown.current = wish;
      latest.current.draw(image, wanted);
    };
    const have = store.cached(wanted);
    if (have) show(have);
    store.frame(wanted, direction).then(
      (image) => {
        // Said in the same turn: the picture and its number never stand apart.
        if (image && !have) flushSync(() => show(image));
      },
      (error: Error) => setDrawn((now) => ({ ...now, error })),
    );
  }, [store, wanted, direction, draw, view]);

  const { frame } = drawn;
  const image = useCallback(() => (frame === null ? undefined : store?.cached(frame)), [store, frame]);
  return { ...drawn, exact: store?.exact ?? null, image };
}
