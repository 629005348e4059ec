import { type PointerEvent, type RefObject, useRef, useState } from "react";
import { type Point, type Size, toPicture, type View } from "../../drawn/stageView";
import { useBench, useBenchStore } from "../benchContext";
import { MAT, onOf, type Side, type SideState } from "../benchState";
import type { Laying } from "../ground/useLaying";
import type { HandTestState } from "../marks/HandTest";
import type { Fan } from "../marks/MarkFan";
import { useShowPlayer } from "../marks/useShowPlayer";
import { chalkedOn } from "./hand/chalk";
import { grip } from "./hand/grip";
import type { Deed, Hand, Scene } from "./hand/scene";

interface About {
  side: Side;
  state: SideState;
  box: RefObject<HTMLDivElement | null>;
  size: Size;
  view: View | null;
  shown: number | null; // the frame that is drawn
  scene: (view: View) => Scene;
  laying: Laying;
  test: HandTestState;
  putMark: (name: string, at: Point, gesture?: string) => void;
  shift: (from: View, by: Point) => void;
  pinch: (from: View, was: [Point, Point], now: [Point, Point]) => void;
}

/** Where a hand is on a stage, and what it has begun. */
interface Held {
  hand: Hand | null;
  view: View;
  gesture: string;
  pair?: [Point, Point]; // where two fingers began to pinch
  waits?: { deeds: Deed[]; at: Point }; // of a finger: done once it moves or lifts, for it may begin a pinch
}

/** Where words in chalk are typed: on the stage, and in the picture. */
export interface Writing {
  at: Point;
  place: Point;
}

const STIRS_PX = 4;

/** A hand on a stage: presses, drags and pinches become what they mean. */
export function useHand(about: About) {
  const { side, state, box, size, view, shown, scene, laying, test, putMark, shift, pinch } = about;
  const store = useBenchStore();
  const edit = useBench((bench) => bench.edit);
  const set = useBench((bench) => bench.set);
  const say = useBench((bench) => bench.say);
  const tool = useBench((bench) => (bench.active === side ? bench.tool : null));
  const advance = useBench((bench) => bench.advance);
  const player = useShowPlayer(state.clip.id);
  const [pointer, setPointer] = useState<Point | null>(null);
  const [start, setStart] = useState<Point | null>(null); // of a line that is drawn
  const [writing, setWriting] = useState<Writing | null>(null);
  const [fan, setFan] = useState<Fan | null>(null);
  const [drags, setDrags] = useState(false);
  const held = useRef<Held | null>(null);
  const fingers = useRef(new Map<number, Point>());

  const pointOf = (event: { clientX: number; clientY: number }): Point => {
    const rect = box.current?.getBoundingClientRect();
    return { x: event.clientX - (rect?.left ?? 0), y: event.clientY - (rect?.top ?? 0) };
  };

  const act = (deed: Deed, from: View, gesture: string) => {
    if (deed.do === "choose") set({ selected: deed.name, tool: deed.name === tool ? tool : null });
    else if (deed.do === "put") putMark(deed.name, deed.place, gesture);
    else if (deed.do === "next") advance();
    else if (deed.do === "fan") setFan(deed);
    else if (deed.do === "add corner") laying.clickCorner(deed.place);
    else if (deed.do === "stretch") setStart(deed.from);
    else if (deed.do === "line") laying.layLine(deed.a, deed.b);
    else if (deed.do === "shift") shift(from, deed.by);
    else if (deed.do === "say") say(deed.words);
    else if (deed.do === "write") setWriting(deed);
    else if (deed.do === "chalk") {
      const drawn = {
        id: gesture,
        clip: state.clip.id,
        frame: shown ?? 0,
        tool: deed.draws,
        points: deed.points,
      };
      set({ chalk: chalkedOn(store.getState().chalk, drawn, deed.ended) });
    } else if (deed.do === "show player") player.mutate({ frame: shown ?? 0, ...deed.place });
    else {
      const mat = onOf(state).mat;
      const corners = mat?.corners.map((own, i) => (i === deed.index ? deed.place : own));
      if (mat && corners) edit(side, { kind: "mat", value: { ...mat, corners } }, gesture);
    }
  };

  const down = (event: PointerEvent) => {
    if (!view || event.button !== 0) return;
    if (shown === null) {
      say("The frame was not drawn yet, so nothing was placed: click again.");
      return;
    }
    const at = pointOf(event);
    set({ active: side });
    setFan(null);
    fingers.current.set(event.pointerId, at);
    const touching = [...fingers.current.values()];
    if (touching.length === 2) {
      held.current = { hand: null, view, gesture: "", pair: touching as [Point, Point] };
      return;
    }
    box.current?.setPointerCapture(event.pointerId);
    if (test.click(toPicture(at, view, size), shown)) return;
    const gesture = crypto.randomUUID();
    const { deeds, hand } = grip(scene(view), at);
    held.current = { hand, view, gesture };
    setDrags(deeds.some((deed) => deed.do === "choose" && deed.name !== null && deed.name !== MAT));
    if (event.pointerType === "touch") held.current.waits = { deeds, at };
    else for (const deed of deeds) act(deed, view, gesture);
  };

  /** Do what a finger began. */
  const begin = (now: Held) => {
    const { deeds } = now.waits ?? { deeds: [] };
    now.waits = undefined;
    for (const deed of deeds) act(deed, now.view, now.gesture);
  };

  const move = (event: PointerEvent) => {
    const at = pointOf(event);
    setPointer(at);
    if (fingers.current.has(event.pointerId)) fingers.current.set(event.pointerId, at);
    const now = held.current;
    if (!now) return;
    if (now.pair && fingers.current.size === 2)
      pinch(now.view, now.pair, [...fingers.current.values()] as [Point, Point]);
    const { waits } = now;
    if (waits && Math.hypot(at.x - waits.at.x, at.y - waits.at.y) < STIRS_PX) return;
    begin(now);
    for (const deed of now.hand?.move(at) ?? []) act(deed, now.view, now.gesture);
  };

  const up = (event: PointerEvent) => {
    const now = held.current;
    held.current = null;
    fingers.current.delete(event.pointerId);
    setStart(null);
    setDrags(false);
    if (!now) return;
    if (!tool) setPointer(null); // the loupe goes with the drag
    // A touch that the browser took for something else did nothing.
    if (now.waits && event.type === "pointercancel") return;
    begin(now);
    for (const deed of now.hand?.up(pointOf(event)) ?? []) act(deed, now.view, now.gesture);
  };

  return {
    pointer,
    start,
    fan,
    setFan,
    writing,
    setWriting,
    drags,
    on: {
      onPointerDown: down,
      onPointerMove: move,
      onPointerUp: up,
      onPointerCancel: up,
      onPointerLeave: () => setPointer(null),
    },
    forget: () => setPointer(null),
  };
}
