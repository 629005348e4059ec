import { useEffect, useRef, useState } from "react";
import { drawFrame } from "../../drawn/drawFrame";
import { type Point, type Size, type View, zoomed } from "../../drawn/stageView";
import { type ClipFrames, holdFrames } from "../../frames/clipFrames";
import type { FrameSource } from "../../frames/source";
import { useSize } from "../../parts/useSize";
import type { Units } from "../../units";
import { type Hand, momentWords } from "../../words";
import type { Scene, Side, StageShown } from "../score";
import { momentAt, stageSays } from "../stageSays";
import { SceneOverlay, type WalkClip } from "./SceneOverlay";
import { saidOn } from "./saidOn";
import { useAskedLabel } from "./useAskedLabel";
import { walkView } from "./walkView";

interface Props {
  side: Side;
  shown: StageShown;
  clip: WalkClip;
  source: FrameSource;
  scene: Scene;
  frame: number; // shown's own, or one that the student has stepped to
  units: Units;
  hand: Hand;
}

/** One stage of a walk: its frame by number, and over it what was shown and drawn. Two fingers look closer. */
export function PlayedStage({ side, shown, clip, source, scene, frame, units, hand }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useSize(box);
  const [closer, setCloser] = useState<View | null>(null);
  const view = closer ?? (size.height ? walkView(shown.showing, clip, size) : null);
  const drawn = useNumberedFrame(source, clip, frame, canvas, view, size);
  const { asked, onClick } = useAskedLabel(drawn ?? frame);
  const pinch = usePinch(box, view, clip, size, setCloser);
  // What is looked at closer stays so until the walk goes elsewhere.
  // biome-ignore lint/correctness/useExhaustiveDependencies: another picture or another look ends it
  useEffect(() => setCloser(null), [shown.clip, shown.showing]);
  const on = drawn ?? frame;
  const moment = momentAt(clip, on);
  const answer = saidOn(clip, asked ? [asked] : [], on, units, hand);
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: keys find the same words beneath, in "What the lines say"
    <div
      ref={box}
      role="img"
      aria-label={`${clip.whose === "student" ? "You" : clip.name}, frame ${on}${moment ? `, ${momentWords(moment)}` : ""}`}
      data-walk-stage={side}
      data-drawn={drawn ?? ""}
      className="relative min-w-0 flex-1 touch-pan-y overflow-hidden bg-dusk"
      {...pinch}
      onClick={onClick}
    >
      <canvas
        ref={canvas}
        className="absolute inset-0 h-full w-full"
        data-scale={view?.scale}
        data-cx={view?.cx}
        data-cy={view?.cy}
      />
      {view && drawn !== null && (
        <svg className="absolute inset-0 h-full w-full" aria-hidden="true">
          <SceneOverlay {...{ scene, side, clip, view, size, units, hand }} frame={drawn} />
        </svg>
      )}
      {answer.length > 0 && (
        <p className="absolute inset-x-0 top-0 bg-brass px-2 py-1.5 text-sm leading-snug text-dusk">
          {answer.map(({ reading, words }) => (
            <span key={reading} className="block">
              {words}
            </span>
          ))}
        </p>
      )}
      <p className="num absolute bottom-0 left-0 max-w-full truncate bg-dusk/80 px-1.5 text-[11px] text-paper">
        <span
          className={`mr-1 inline-block h-2 w-2 rounded-full ${clip.whose === "student" ? "bg-clay" : "bg-slate"}`}
          aria-hidden
        />
        {stageSays(clip, on)}
      </p>
    </div>
  );
}

/** Draws a frame of a clip by its number, and says which one is on the canvas. */
function useNumberedFrame(
  source: FrameSource,
  clip: Size,
  frame: number,
  canvas: React.RefObject<HTMLCanvasElement | null>,
  view: View | null,
  size: Size,
): number | null {
  const [frames, setFrames] = useState<ClipFrames | null>(null);
  const [drawn, setDrawn] = useState<number | null>(null);
  const first = useRef(frame);
  const { proxy } = source;
  const latest = useRef(source);
  latest.current = source;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another file is another clip
  useEffect(() => {
    let gone = false;
    const held = holdFrames(latest.current, first.current);
    held.frames.then(
      (store) => !gone && setFrames(store),
      () => undefined, // the voice goes on without its picture
    );
    return () => {
      gone = true;
      setFrames(null);
      setDrawn(null);
      held.letGo();
    };
  }, [proxy]);
  const { width, height } = clip;
  useEffect(() => {
    if (!frames || !view) return;
    let passed = false;
    const show = (image: ImageBitmap | undefined) => {
      if (passed || !image || !canvas.current) return;
      drawFrame(canvas.current, image, { width, height }, view, size);
      setDrawn(frame);
    };
    const have = frames.cached(frame);
    if (have) show(have);
    void frames.frame(frame).then(have ? undefined : show, () => undefined);
    return () => {
      passed = true;
    };
  }, [frames, frame, view, size, width, height, canvas]);
  return drawn;
}

/** Two fingers on a stage. */
function usePinch(
  box: React.RefObject<HTMLDivElement | null>,
  view: View | null,
  clip: Size,
  size: Size,
  look: (view: View) => void,
) {
  const fingers = useRef(new Map<number, Point>());
  const began = useRef<{ view: View; far: number } | null>(null);
  const spread = () => {
    const [a, b] = [...fingers.current.values()];
    return a && b
      ? { far: Math.hypot(a.x - b.x, a.y - b.y), at: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } }
      : null;
  };
  const pointOf = (event: React.PointerEvent) => {
    const rect = box.current?.getBoundingClientRect();
    return { x: event.clientX - (rect?.left ?? 0), y: event.clientY - (rect?.top ?? 0) };
  };
  const lift = (event: React.PointerEvent) => {
    fingers.current.delete(event.pointerId);
    began.current = null;
  };
  return {
    onPointerDown: (event: React.PointerEvent) => {
      fingers.current.set(event.pointerId, pointOf(event));
      const now = spread();
      if (now && view) began.current = { view, far: now.far };
    },
    onPointerMove: (event: React.PointerEvent) => {
      if (!fingers.current.has(event.pointerId)) return;
      fingers.current.set(event.pointerId, pointOf(event));
      const now = spread();
      if (now && began.current)
        look(zoomed(began.current.view, now.far / began.current.far, now.at, clip, size));
    },
    onPointerUp: lift,
    onPointerCancel: lift,
  };
}
