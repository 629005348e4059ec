import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, type PointerEvent, useCallback, useMemo, useRef, useState } from "react";
import { meQuery } from "../../api/queries";
import type { Units } from "../../units";
import { isBody, MARK_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { KNOWN_LENGTH, MAT, markAt, PLUMB, type Side, type SideState } from "../benchState";
import { KnownLengthLine } from "../ground/KnownLengthLine";
import { MatLayer } from "../ground/MatLayer";
import { PlumbLine } from "../ground/PlumbLine";
import { MAT_CORNERS, useLaying } from "../ground/useLaying";
import { INK, whose } from "../ink";
import { Doubts } from "../marks/Doubts";
import { HandTest, useHandTest } from "../marks/HandTest";
import { HAND_SD_PX, unitPx } from "../marks/hand";
import { MarkLayer } from "../marks/MarkLayer";
import { ProposedMarkLayer, TakeProposed, useProposedMarks } from "../marks/ProposedMarks";
import { TrackLayer } from "../marks/TrackLayer";
import { useTrackedMarks, useTracks } from "../marks/tracks";
import { GaugeLayer } from "../readings/GaugeLayer";
import { ProposedPegs } from "../rule/ProposedPegs";
import { moved, still } from "./cameraMotion";
import { Loupe } from "./Loupe";
import { Overlay } from "./Overlay";
import { StageFooter } from "./StageFooter";
import { StageHeader } from "./StageHeader";
import { type Point, sameView, toPicture, toStage, type View } from "./stageView";
import { useFrames } from "./useFrames";
import { useSize } from "./useSize";
import { useStageView } from "./useStageView";
import { ZoomButtons } from "./ZoomButtons";

const NUDGE_CSS_PX = 0.1;
const REACH_PX = 14; // from a mark, within which it is taken hold of
const STILL_PX = 2; // a hand that moves less has only clicked

interface Drag {
  kind: "pan" | "mark" | "line" | "corner" | "pinch";
  from: Point;
  view: View;
  gesture: string;
  corner?: number;
  off?: Point; // from where the mark was taken hold of to its place, picture pixels
  pair?: [Point, Point]; // where two fingers began to pinch
}

/** The frame with the lines of the trade on top; marks are put and moved here. */
export function Stage({ side, state, units }: { side: Side; state: SideState; units: Units }) {
  const { clip, frame, direction } = state;
  const active = useBench((bench) => bench.active === side);
  const tool = useBench((bench) => (bench.active === side ? bench.tool : null));
  const selected = useBench((bench) => (bench.active === side ? bench.selected : null));
  const edit = useBench((bench) => bench.edit);
  const set = useBench((bench) => bench.set);
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useSize(box);
  const [pointer, setPointer] = useState<Point | null>(null);
  const [start, setStart] = useState<Point | null>(null);
  const { corners, clickCorner, layLine } = useLaying(side, state, tool);
  const drag = useRef<Drag | null>(null);
  const fingers = useRef(new Map<number, Point>());

  const { view, look, zoom, shift, pinch, setLook } = useStageView(side, state, box, size);
  const stableView = useStableView(view);
  const drawn = useFrames(clip, frame, direction, canvas, stableView, size);
  const shownFrame = drawn.frame ?? frame;
  const proposed = useProposedMarks(state, shownFrame);
  const { tracks } = useTracks(state);
  const tracked = useTrackedMarks(state, tracks, shownFrame);
  const handSd = (useQuery(meQuery).data?.hand_sd_px ?? HAND_SD_PX) * unitPx(state);
  const advance = useBench((bench) => bench.advance);
  const test = useHandTest(side, state);
  const shownMark = (name: string) =>
    markAt(state, name, shownFrame) ?? tracked.find((mark) => mark.name === name);

  const pointOf = (event: { clientX: number; clientY: number }): Point => {
    const rect = box.current?.getBoundingClientRect();
    return { x: event.clientX - (rect?.left ?? 0), y: event.clientY - (rect?.top ?? 0) };
  };
  const place = useCallback(
    (point: Point) => (stableView ? toStage(point, stableView, size) : { x: 0, y: 0 }),
    [stableView, size],
  );

  const pinned = useBench((bench) => bench.pinned);
  const looked = useBench((bench) => bench.focus?.reading);
  const gauges = useMemo(
    () =>
      state.on.gauges.filter(
        (gauge) => pinned.includes(gauge.id) || gauge.shapes.some((shape) => shape.reading === looked),
      ),
    [state.on.gauges, pinned, looked],
  );
  const player = useMemo(
    () => state.on.marks.filter(({ frame, name }) => frame === shownFrame && isBody(name)),
    [state.on.marks, shownFrame],
  );
  // A mat, a known length and the lines of the trade stand in the range: they go with a hand-held camera.
  const motion = clip.camera_motion;
  const placeStill = useCallback(
    (point: Point) => place(moved(motion, shownFrame, point)),
    [place, motion, shownFrame],
  );
  const toStill = (at: Point, from: View) => still(motion, shownFrame, toPicture(at, from, size));

  const putMark = (name: string, at: Point, gesture?: string) => {
    const { x, y } = at;
    edit(
      side,
      { kind: "mark", name, frame: shownFrame, place: { x, y, sd_px: handSd, source: "hand" } },
      gesture,
    );
  };

  /** The mark that a hand takes hold of: of those within reach the nearest, whatever lies over it. */
  const nearest = (at: Point) => {
    const far = (mark: Point) => Math.hypot(place(mark).x - at.x, place(mark).y - at.y);
    const placed = state.on.marks.filter((mark) => mark.frame === shownFrame);
    const near = [...placed, ...tracked].filter((mark) => far(mark) <= REACH_PX);
    return near.sort((a, b) => far(a) - far(b))[0];
  };

  const down = (event: PointerEvent) => {
    if (!view || event.button !== 0) return;
    if (drawn.frame === null) {
      set({ notice: "The frame was not drawn yet, so nothing was placed: click again." });
      return;
    }
    const at = pointOf(event);
    set({ active: side });
    fingers.current.set(event.pointerId, at);
    const touching = [...fingers.current.values()];
    if (touching.length === 2) {
      drag.current = { kind: "pinch", from: at, view, gesture: "", pair: touching as [Point, Point] };
      return;
    }
    const hit = nearest(at);
    const corner =
      (event.target as Element).closest("[data-corner]")?.getAttribute("data-corner") ?? undefined;
    const gesture = crypto.randomUUID();
    box.current?.setPointerCapture(event.pointerId);
    if (test.click(toPicture(at, view, size), shownFrame)) return;
    if (hit && (!tool || tool === hit.name)) {
      set({ selected: hit.name, tool: null, active: side });
      const held = toPicture(at, view, size);
      const off = { x: hit.x - held.x, y: hit.y - held.y };
      drag.current = { kind: "mark", from: at, view, gesture, off };
    } else if (corner !== undefined && !isLine(tool)) {
      set({ selected: MAT, tool: null });
      drag.current = { kind: "corner", from: at, view, gesture, corner: Number(corner) };
    } else if (tool === MAT) {
      clickCorner(toStill(at, view));
    } else if (isLine(tool)) {
      setStart(toStill(at, view));
      drag.current = { kind: "line", from: at, view, gesture };
    } else if (tool) {
      putMark(tool, toPicture(at, view, size), gesture);
      set({ selected: tool, active: side });
      drag.current = { kind: "mark", from: at, view, gesture };
    } else {
      set({ selected: null, active: side });
      drag.current = { kind: "pan", from: at, view, gesture };
    }
  };

  const move = (event: PointerEvent) => {
    const at = pointOf(event);
    setPointer(at);
    if (fingers.current.has(event.pointerId)) fingers.current.set(event.pointerId, at);
    const now = drag.current;
    if (!now || !view) return;
    if (now.pair && fingers.current.size === 2)
      pinch(now.view, now.pair, [...fingers.current.values()] as [Point, Point]);
    if (now.kind === "mark" && selected && hasMoved(now.from, at)) {
      const held = toPicture(at, view, size);
      putMark(selected, { x: held.x + (now.off?.x ?? 0), y: held.y + (now.off?.y ?? 0) }, now.gesture);
    }
    if (now.kind === "corner" && state.on.mat) {
      const { x, y } = toStill(at, view);
      const corners = state.on.mat.corners.map((own, i) => (i === now.corner ? { x, y } : own));
      edit(side, { kind: "mat", value: { ...state.on.mat, corners } }, now.gesture);
    }
    if (now.kind === "pan") shift(now.view, { x: at.x - now.from.x, y: at.y - now.from.y });
  };

  const up = (event: PointerEvent) => {
    const now = drag.current;
    drag.current = null;
    fingers.current.delete(event.pointerId);
    if (!now || !view) return;
    if (!tool) setPointer(null); // the loupe goes with the drag
    if (now.kind === "line" && start) {
      const end = toStill(pointOf(event), view);
      setStart(null);
      if (Math.hypot(end.x - start.x, end.y - start.y) * view.scale > 8) layLine(start, end);
      else set({ notice: "Nothing was drawn: press at one end, and let go at the other." });
    }
    if (now.kind === "mark" && tool) advance();
  };

  const nudge = (event: KeyboardEvent) => {
    const way = NUDGE_WAYS[event.key];
    const mark = selected ? shownMark(selected) : undefined;
    if (!way || !mark || !selected || !view || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    const amount = ((event.shiftKey ? 10 : 1) * NUDGE_CSS_PX) / view.scale;
    const turned = view.mirrored ? -1 : 1;
    putMark(
      selected,
      { x: mark.x + turned * way[0] * amount, y: mark.y + way[1] * amount },
      `nudge ${selected} ${shownFrame}`,
    );
    setPointer(null);
  };

  const aiming = tool !== null || test.asks !== null || drag.current?.kind === "mark";
  const loupeAt = aiming && pointer ? pointer : null;
  const selectedMark = selected ? shownMark(selected) : undefined;

  return (
    <section
      aria-label={`${side === "student" ? "Student" : "Reference"} stage`}
      data-side={side}
      data-frame={shownFrame}
      data-theme="bench-dusk"
      className={`relative flex min-h-0 min-w-0 flex-1 flex-col overflow-hidden rounded bg-dusk text-paper select-none ring-2 ${
        active ? (side === "student" ? "ring-clay" : "ring-[#8FB4D8]") : "ring-transparent"
      }`}
    >
      <StageHeader side={side} state={state} look={look} setLook={setLook} />
      <div
        ref={box}
        role="application"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: marks are nudged with the keys here
        tabIndex={0}
        aria-label={`Frame ${shownFrame} of ${state.swing.title}. Arrow keys nudge the chosen mark.`}
        className={`relative min-h-0 flex-1 touch-none overflow-hidden ${tool ? "cursor-crosshair" : ""}`}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={up}
        onPointerLeave={() => setPointer(null)}
        onKeyDown={nudge}
      >
        <canvas
          ref={canvas}
          className="absolute inset-0 h-full w-full"
          data-scale={stableView?.scale}
          data-cx={stableView?.cx}
          data-cy={stableView?.cy}
          data-drawn={drawn.frame ?? ""}
        />
        {stableView && side === "student" && <Overlay lower={state} view={stableView} stage={size} />}
        {stableView && (
          <svg className="absolute inset-0 h-full w-full" aria-hidden="true">
            <GaugeLayer
              gauges={gauges}
              frame={shownFrame}
              place={placeStill}
              wide={size.width}
              clear={player}
              units={units}
              ink={INK[whose(side, state.swing)]}
            />
            {state.on.calibration && (
              <KnownLengthLine known={state.on.calibration} place={placeStill} units={units} />
            )}
            {state.on.facts?.plumb && (
              <PlumbLine ends={state.on.facts.plumb} place={placeStill} chosen={selected === PLUMB} />
            )}
            {state.on.mat && (
              <MatLayer corners={state.on.mat.corners} place={placeStill} whole chosen={selected === MAT} />
            )}
            {tool === MAT && <MatLayer corners={corners} place={placeStill} whole={false} chosen />}
            {start && pointer && <LengthInHand a={placeStill(start)} b={pointer} />}
            {test.asks === null && (
              <>
                <ProposedMarkLayer
                  marks={proposed}
                  place={place}
                  scale={stableView.scale}
                  ink={INK[whose(side, state.swing)]}
                />
                <TrackLayer
                  state={state}
                  marks={tracked}
                  tracks={tracks}
                  place={place}
                  ink={INK[whose(side, state.swing)]}
                  selected={selected}
                />
                <MarkLayer
                  state={state}
                  frame={shownFrame}
                  place={place}
                  ink={INK[whose(side, state.swing)]}
                  selected={selected}
                />
              </>
            )}
          </svg>
        )}
        <ZoomButtons zoom={zoom} />
        {test.asks && <HandTest test={test} />}
        <div
          // Over the sky: what lies here must never cover a foot or a hip that is to be clicked.
          className="pointer-events-none absolute inset-x-1 top-1 grid justify-items-start gap-1 *:pointer-events-auto"
          onPointerDown={(event) => event.stopPropagation()}
        >
          <Doubts side={side} state={state} />
          <TakeProposed side={side} marks={proposed} />
          <ProposedPegs side={side} state={state} />
        </div>
        {loupeAt && stableView && (
          <Loupe
            image={drawn.image}
            picture={clip}
            at={toPicture(loupeAt, stableView, size)}
            under={loupeAt}
            stage={size}
            scale={stableView.scale}
            mirrored={state.mirrored}
            stamp={`${shownFrame}`}
          />
        )}
        {drawn.frame === null && !drawn.error && <p className="p-3 text-sm">Opening the clip…</p>}
        {drawn.error && (
          <p role="alert" className="plate m-3 p-3 text-sm">
            {drawn.error.message}
          </p>
        )}
        {tool && active && (
          <p className="pointer-events-none absolute top-2 left-2 rounded-sm bg-dusk/85 px-2 py-1 text-sm">
            {tool === KNOWN_LENGTH
              ? "Drag along the known length"
              : tool === PLUMB
                ? "Drag along an upright edge: a wall's corner, a door"
                : tool === MAT
                  ? `Click a corner of the mat (${corners.length + 1} of ${MAT_CORNERS})`
                  : `Click the ${MARK_WORDS[tool]?.toLowerCase()}`}
          </p>
        )}
        {selectedMark && selected && !tool && (
          <p className="pointer-events-none absolute top-2 left-2 rounded-sm bg-dusk/85 px-2 py-1 text-sm">
            {MARK_WORDS[selected]} · arrows nudge, Delete removes
          </p>
        )}
      </div>
      <StageFooter side={side} state={state} frame={shownFrame} exact={drawn.exact} />
    </section>
  );
}

const NUDGE_WAYS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const hasMoved = (from: Point, to: Point) => Math.hypot(to.x - from.x, to.y - from.y) > STILL_PX;

const isLine = (tool: string | null) => tool === KNOWN_LENGTH || tool === PLUMB;

function LengthInHand({ a, b }: { a: Point; b: Point }) {
  return <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="#D8AA4C" strokeWidth={2} strokeDasharray="4 3" />;
}

/** The same object while the view is the same, so that drawing is not asked for without need. */
function useStableView(view: View | null): View | null {
  const last = useRef<View | null>(null);
  if (!sameView(last.current, view)) last.current = view;
  return last.current;
}
