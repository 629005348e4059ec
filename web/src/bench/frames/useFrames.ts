import { type RefObject, useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import type { ClipOut } from "../../api/queries";
import { drawFrame } from "../../drawn/drawFrame";
import type { Size, View } from "../../drawn/stageView";
import { type ClipFrames, holdFrames } from "../../frames/clipFrames";
import { sourceOf } from "../../frames/source";
import { useBench, useBenchStore } from "../benchContext";
import type { Side } from "../benchState";

type Clip = Size & Pick<ClipOut, "id" | "flipped" | "frame_count">;

interface Drawn {
  frame: number | null;
  error: Error | null;
  exact: ClipFrames["exact"] | null;
  image: () => ImageBitmap | undefined;
}

/**
 * Opens a clip's frames and draws the one on which its side stands on a canvas. `frame` is the number of the frame
 * that is on the canvas now, so that what is said about it is always true of what is seen.
 */
export function useFrames(
  clip: Clip,
  side: Side,
  canvas: RefObject<HTMLCanvasElement | null>,
  view: View | null,
  stage: Size,
): Drawn {
  const { id, flipped, frame_count } = clip;
  const { frame: wanted, direction } = useBench((bench) => bench.stands[side]);
  const [store, setStore] = useState<ClipFrames | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [, redrawn] = useState(0);
  const onCanvas = useRef<number | null>(null);
  const first = useRef(wanted);
  first.current = wanted;
  const wishes = useRef(0);
  const shown = useRef(0);
  const latest = useRef<{ store: ClipFrames; draw: (image: ImageBitmap, frame: number) => void }>(null);

  useEffect(() => {
    let gone = false;
    onCanvas.current = null;
    setError(null);
    const held = holdFrames(sourceOf({ id, flipped, frame_count }), first.current);
    held.frames.then(
      (store) => {
        if (!gone) setStore(store);
      },
      (error: Error) => {
        if (!gone) setError(error);
      },
    );
    return () => {
      gone = true;
      latest.current = null;
      setStore(null);
      held.letGo();
    };
  }, [id, flipped, frame_count]);

  // Asked for in the very turn of the step: it is decoded while the screen's parts are worked out anew.
  const bench = useBenchStore();
  useEffect(
    () =>
      bench.subscribe(({ stands }, before) => {
        const { frame, direction } = stands[side];
        if (stands[side] !== before.stands[side]) store?.frame(frame, direction).catch(setError);
      }),
    [bench, side, store],
  );

  const draw = useDrawing(canvas, clip, view, stage, onCanvas);
  // A frame at hand is drawn in the same turn as the step that asked for it: one step, one commit.
  const have = view ? store?.cached(wanted) : undefined;
  useLayoutEffect(() => {
    if (!store || !view) return;
    latest.current = { store, draw };
    const wish = ++wishes.current;
    const show = (image: ImageBitmap) => {
      // While a hand is quicker than the decoder, each frame is shown as it comes, unless a later one was.
      if (wish < shown.current || latest.current?.store !== store) return;
      shown.current = wish;
      latest.current.draw(image, wanted);
    };
    const have = store.cached(wanted);
    if (have) show(have);
    store.frame(wanted, direction).then((image) => {
      if (!image || have) return;
      show(image);
      // Said in the same turn: the picture and its number never stand apart.
      flushSync(() => redrawn(wish));
    }, setError);
  }, [store, wanted, direction, draw, view]);

  const frame = have ? wanted : onCanvas.current;
  const image = useCallback(() => (frame === null ? undefined : store?.cached(frame)), [store, frame]);
  return { frame, error, exact: store?.exact ?? null, image };
}

/** Puts a frame on the canvas as the view shows it, and notes which it is. */
function useDrawing(
  canvas: RefObject<HTMLCanvasElement | null>,
  { width, height }: Size,
  view: View | null,
  stage: Size,
  onCanvas: RefObject<number | null>,
) {
  return useCallback(
    (image: ImageBitmap, frame: number) => {
      const target = canvas.current;
      if (!target || !view) return;
      drawFrame(target, image, { width, height }, view, { width: stage.width, height: stage.height });
      onCanvas.current = frame;
    },
    [canvas, view, stage.width, stage.height, width, height, onCanvas],
  );
}
