import { type RefObject, useCallback, useEffect, useRef, useState } from "react";
import {
  aboutBox,
  aboutPlayer,
  between,
  type Look,
  lookOf,
  type Point,
  type Size,
  sameView,
  type View,
  viewOf,
  zoomed,
} from "../../drawn/stageView";
import { useBench } from "../benchContext";
import { onOf, type Side, type SideState } from "../benchState";
import { useDoing } from "../commands/doings";

const EASE_MS = 140;
export const ZOOM_STEP = 1.5;
const WHEEL_PX = 400; // of the wheel, for e times as large

const still = () => window.matchMedia("(prefers-reduced-motion: reduce)").matches;

interface StageView {
  view: View | null; // what is seen now
  look: Look | null;
  zoom: (factor: number, at?: Point) => void;
  shift: (from: View, by: Point) => void; // stage px
  pinch: (from: View, was: [Point, Point], now: [Point, Point]) => void;
  setLook: (look: Look | null) => void;
}

/**
 * What part of the picture a stage shows: by default the player. Zooming glides, dragging follows the
 * hand; both stages are looked at alike unless they are looked at each alone.
 */
export function useStageView(
  side: Side,
  state: SideState,
  box: RefObject<HTMLElement | null>,
  size: Size,
): StageView {
  const { clip, mirrored } = state;
  const look = useBench((bench) => bench.looks[side] ?? null);
  const setLookOf = useBench((bench) => bench.setLook);
  const [moving, setMoving] = useState(false);
  const home = useHome(state, size);
  const target = home ? viewOf(look, home, clip, size) : null;
  const view = useGliding(target, moving);

  const setLook = useCallback(
    (next: Look | null) => {
      setMoving(false);
      setLookOf(side, next);
    },
    [setLookOf, side],
  );
  const show = useCallback(
    (next: View, glides: boolean) => {
      if (!home) return;
      setMoving(!glides);
      setLookOf(side, lookOf(next, home, size));
    },
    [home, size, setLookOf, side],
  );
  const zoom = useCallback(
    (factor: number, at: Point = { x: size.width / 2, y: size.height / 2 }) => {
      if (target) show(zoomed(target, factor, at, clip, size), true);
    },
    [target, show, clip, size],
  );
  const shift = useCallback(
    (from: View, by: Point) => {
      const turned = from.mirrored ? -1 : 1;
      const moved = { ...from, cx: from.cx - (turned * by.x) / from.scale, cy: from.cy - by.y / from.scale };
      show(zoomed(moved, 1, by, clip, size), false);
    },
    [show, clip, size],
  );
  const pinch = useCallback(
    (from: View, was: [Point, Point], now: [Point, Point]) => {
      const apart = (pair: [Point, Point]) => Math.hypot(pair[0].x - pair[1].x, pair[0].y - pair[1].y);
      const middle = (pair: [Point, Point]) => ({
        x: (pair[0].x + pair[1].x) / 2,
        y: (pair[0].y + pair[1].y) / 2,
      });
      const [a, b] = [middle(was), middle(now)];
      const turned = from.mirrored ? -1 : 1;
      const large = zoomed(from, apart(now) / Math.max(apart(was), 1), a, clip, size);
      const moved = {
        ...large,
        cx: large.cx - (turned * (b.x - a.x)) / large.scale,
        cy: large.cy - (b.y - a.y) / large.scale,
      };
      show(zoomed(moved, 1, b, clip, size), false);
    },
    [show, clip, size],
  );

  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const rect = element.getBoundingClientRect();
      const at = { x: event.clientX - rect.left, y: event.clientY - rect.top };
      zoom(Math.exp(-event.deltaY / WHEEL_PX), at);
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => element.removeEventListener("wheel", wheel);
  }, [box, zoom]);

  const active = useBench((bench) => bench.active === side);
  useDoing("larger", () => zoom(ZOOM_STEP), active);
  useDoing("smaller", () => zoom(1 / ZOOM_STEP), active);
  useDoing("whole_picture", () => setLook(look === null ? "whole" : null), active);

  return { view: view && { ...view, mirrored }, look, zoom, shift, pinch, setLook };
}

/** The crop to the player: where a worker saw the body, else about the marks, in the picture's full height. */
function useHome(state: SideState, size: Size): View | null {
  const { clip, mirrored } = state;
  const on = onOf(state);
  const middle = useRef(clip.width / 2);
  useEffect(() => {
    if (on.marks.length) middle.current = on.marks.reduce((sum, mark) => sum + mark.x, 0) / on.marks.length;
  }, [on.marks]);
  const [home, setHome] = useState<View | null>(null);
  const ready = size.width > 0 && size.height > 0;
  const box = clip.proposals.box;
  useEffect(() => {
    if (!ready) return;
    setHome(box ? aboutBox(clip, size, box, mirrored) : aboutPlayer(clip, size, middle.current, mirrored));
  }, [ready, size, clip, box, mirrored]);
  return home;
}

/** Glides to a new target; at once while the hand itself moves it, or for whoever asked for stillness. */
function useGliding(target: View | null, atOnce: boolean): View | null {
  const shown = useRef<View | null>(null);
  const [, redraw] = useState(0);
  const { scale, cx, cy } = target ?? { scale: 0, cx: 0, cy: 0 };
  const mirrored = target?.mirrored ?? false;
  const jumps = () => atOnce || shown.current?.mirrored !== mirrored || still();
  if (!sameView(shown.current, target) && jumps()) shown.current = target;
  useEffect(() => {
    const from = shown.current;
    const to = { scale, cx, cy, mirrored };
    if (!from || scale === 0 || sameView(from, to)) return;
    const began = performance.now();
    let request = 0;
    const tick = (now: number) => {
      const share = Math.min((now - began) / EASE_MS, 1);
      shown.current = share === 1 ? to : between(from, to, 1 - (1 - share) ** 3);
      redraw((count) => count + 1);
      if (share < 1) request = requestAnimationFrame(tick);
    };
    request = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(request);
  }, [scale, cx, cy, mirrored]);
  return shown.current;
}
