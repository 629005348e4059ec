import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef } from "react";
import { meQuery } from "../../api/queries";
import type { Units } from "../../units";
import { isBody, MARK_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { KNOWN_LENGTH, MAT, markAt, onOf, PLUMB, type Side, type SideState } from "../benchState";
import { useFrames } from "../frames/useFrames";
import { KnownLengthLine } from "../ground/KnownLengthLine";
import { MatLayer } from "../ground/MatLayer";
import { PlumbLine } from "../ground/PlumbLine";
import { MAT_CORNERS, useLaying } from "../ground/useLaying";
import { INK, whose } from "../ink";
import { Doubts } from "../marks/Doubts";
import { HandTest, useHandTest } from "../marks/HandTest";
import { HAND_SD_PX, unitPx } from "../marks/hand";
import { MarkFan } from "../marks/MarkFan";
import { MarkLayer, type ShownMark } from "../marks/MarkLayer";
import { ProposedMarkLayer, TakeProposed, useProposedMarks } from "../marks/ProposedMarks";
import { marksOf } from "../marks/round";
import { TrackPath } from "../marks/TrackPath";
import { useTrackedMarks, useTracks } from "../marks/tracks";
import { GaugeLayer } from "../readings/GaugeLayer";
import { ProposedPegs } from "../rule/ProposedPegs";
import { moved, still } from "./cameraMotion";
import type { Scene } from "./hand/scene";
import { Loupe } from "./Loupe";
import { Overlay } from "./Overlay";
import { StageFooter } from "./StageFooter";
import { StageHeader } from "./StageHeader";
import { type Look, type Point, sameView, toPicture, toStage, type View } from "./stageView";
import { useHand } from "./useHand";
import { useSize } from "./useSize";
import { useStageView } from "./useStageView";
import { ZoomButtons } from "./ZoomButtons";

const NUDGE_CSS_PX = 0.1;

/** The frame with the lines of the trade on top; at Mark, marks are put and moved here. */
export function Stage({ side, state, units }: { side: Side; state: SideState; units: Units }) {
  const { clip } = state;
  const { frame } = useBench((bench) => bench.stands[side]);
  const on = onOf(state);
  const active = useBench((bench) => bench.active === side);
  const marking = useBench((bench) => bench.station === "mark");
  const covered = useBench((bench) => bench.station !== "mark" && !bench.uncovered);
  const tool = useBench((bench) => (bench.active === side ? bench.tool : null));
  const selected = useBench((bench) => (bench.active === side ? bench.selected : null));
  const edit = useBench((bench) => bench.edit);
  const set = useBench((bench) => bench.set);
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useSize(box);
  const laying = useLaying(side, state, tool);

  const { view, look, zoom, shift, pinch, setLook } = useStageView(side, state, box, size);
  useWholeForMat(tool, look, setLook);
  const stableView = useStableView(view);
  const drawn = useFrames(clip, side, canvas, stableView, size);
  const shownFrame = drawn.frame ?? frame;
  const proposed = useProposedMarks(state, shownFrame, marking);
  const { tracks } = useTracks(state);
  const tracked = useTrackedMarks(state, tracks, shownFrame);
  const handSd = (useQuery(meQuery).data?.hand_sd_px ?? HAND_SD_PX) * unitPx(state);
  const test = useHandTest(side, state);
  const shownMark = (name: string) =>
    markAt(state, name, shownFrame) ?? tracked.find((mark) => mark.name === name);

  const place = useCallback(
    (point: Point) => (stableView ? toStage(point, stableView, size) : { x: 0, y: 0 }),
    [stableView, size],
  );

  const pinned = useBench((bench) => bench.pinned);
  const looked = useBench((bench) => bench.focus?.reading);
  const gauges = useMemo(
    () =>
      on.gauges.filter(
        (gauge) => pinned.includes(gauge.id) || gauge.shapes.some((shape) => shape.reading === looked),
      ),
    [on.gauges, pinned, looked],
  );
  const player = useMemo(
    () => on.marks.filter(({ frame, name }) => frame === shownFrame && isBody(name)),
    [on.marks, shownFrame],
  );
  const shownMarks: ShownMark[] = useMemo(
    () => [
      ...on.marks.filter((mark) => mark.frame === shownFrame),
      ...tracked.map((mark) => ({ ...mark, source: "tracked" as const })),
    ],
    [on.marks, tracked, shownFrame],
  );
  // A mat, a known length and the lines of the trade stand in the range: they go with a hand-held camera.
  const motion = clip.camera_motion;
  const placeStill = useCallback(
    (point: Point) => place(moved(motion, shownFrame, point)),
    [place, motion, shownFrame],
  );

  const wanted = useBench((bench) => bench.wanted);
  const groups = useBench((bench) => bench.groups);
  const group = useBench((bench) => bench.group);
  const putMark = (name: string, { x, y }: Point, gesture?: string) =>
    edit(
      side,
      { kind: "mark", name, frame: shownFrame, place: { x, y, sd_px: handSd, source: "hand" } },
      gesture,
    );
  const sceneOf = (from: View): Scene => {
    const grouped = new Set(marksOf(state, { wanted, groups }, group).map(({ name }) => name));
    return {
      tool,
      selected,
      // What is not seen is not taken hold of.
      spots: marking
        ? shownMarks.map(({ name, x, y }) => ({
            name,
            at: place({ x, y }),
            place: { x, y },
            grouped: grouped.has(name),
          }))
        : [],
      corners: marking && on.mat ? on.mat.corners.map(placeStill) : [],
      toPicture: (at) => toPicture(at, from, size),
      toRange: (at) => still(motion, shownFrame, toPicture(at, from, size)),
    };
  };
  const hand = useHand({
    side,
    state,
    box,
    size,
    view,
    shown: drawn.frame,
    scene: sceneOf,
    laying,
    test,
    putMark,
    shift,
    pinch,
  });

  const pressed = (event: KeyboardEvent) => {
    if (!view || event.ctrlKey || event.metaKey) return;
    const way = NUDGE_WAYS[event.key];
    const mark = selected ? shownMark(selected) : undefined;
    const used = () => {
      event.preventDefault();
      event.stopPropagation();
      hand.forget();
    };
    if (way && mark && selected) {
      used();
      const amount = ((event.shiftKey ? 10 : 1) * NUDGE_CSS_PX) / view.scale;
      const turned = view.mirrored ? -1 : 1;
      const to = { x: mark.x + turned * way[0] * amount, y: mark.y + way[1] * amount };
      putMark(selected, to, `nudge ${selected} ${shownFrame}`);
    } else if (event.key === "Enter" && tool && !GROUND.includes(tool) && proposed.length === 0) {
      // Without a pointer a mark begins in the middle of what is seen, and is nudged from there.
      used();
      putMark(tool, { x: view.cx, y: view.cy });
      set({ selected: tool, tool: null });
    }
  };

  const aiming = tool !== null || test.asks !== null || hand.drags;
  const loupeAt = aiming && hand.pointer ? hand.pointer : null;
  const selectedMark = selected ? shownMark(selected) : undefined;
  const chosenTrack = marking ? tracks.find((track) => track.name === selected) : undefined;
  const ink = INK[whose(side, state.swing)];
  const told = asked(tool, laying.corners.length);

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
        aria-label={`Frame ${shownFrame} of ${state.swing.title}${marking ? ". Arrow keys nudge the chosen mark." : ""}`}
        className={`relative min-h-0 flex-1 touch-none overflow-hidden ${tool ? "cursor-crosshair" : ""}`}
        {...hand.on}
        onKeyDown={pressed}
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
              ink={ink}
            />
            {marking && on.calibration && (
              <KnownLengthLine known={on.calibration} place={placeStill} units={units} />
            )}
            {marking && on.facts?.plumb && (
              <PlumbLine ends={on.facts.plumb} place={placeStill} chosen={selected === PLUMB} />
            )}
            {marking && on.mat && (
              <MatLayer corners={on.mat.corners} place={placeStill} whole chosen={selected === MAT} />
            )}
            {tool === MAT && <MatLayer corners={laying.corners} place={placeStill} whole={false} chosen />}
            {hand.start && hand.pointer && <LengthInHand a={placeStill(hand.start)} b={hand.pointer} />}
            {test.asks === null && !covered && (
              <>
                {marking && (
                  <ProposedMarkLayer marks={proposed} place={place} scale={stableView.scale} ink={ink} />
                )}
                {chosenTrack && <TrackPath state={state} track={chosenTrack} place={place} ink={ink} />}
                <MarkLayer
                  marks={shownMarks}
                  place={place}
                  ink={ink}
                  chosen={tool ?? selected}
                  aim={tool && !GROUND.includes(tool) ? hand.pointer : null}
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
          {told && active && (
            <p className="pointer-events-none rounded-sm bg-dusk/85 px-2 py-1 text-sm" role="status">
              {told}
            </p>
          )}
          {selectedMark && selected && !tool && marking && (
            <p className="pointer-events-none rounded-sm bg-dusk/85 px-2 py-1 text-sm" role="status">
              {MARK_WORDS[selected]} · arrows nudge, Delete removes
            </p>
          )}
          {marking && (
            <>
              <Doubts side={side} state={state} />
              <TakeProposed side={side} marks={proposed} />
              <ProposedPegs side={side} state={state} />
            </>
          )}
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
        {hand.fan && (
          <MarkFan
            fan={hand.fan}
            stage={size}
            choose={(name) => {
              set({ selected: name, tool: null });
              hand.setFan(null);
              box.current?.focus();
            }}
            close={() => {
              hand.setFan(null);
              box.current?.focus();
            }}
          />
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

const GROUND = [KNOWN_LENGTH, PLUMB, MAT];

/** What the tool in hand asks for. */
function asked(tool: string | null, cornersClicked: number): string {
  if (tool === null) return "";
  if (tool === KNOWN_LENGTH) return "Drag along the known length";
  if (tool === PLUMB) return "Drag along an upright edge: a wall's corner, a door";
  if (tool === MAT) return `Click a corner of the mat (${cornersClicked + 1} of ${MAT_CORNERS})`;
  return `Click the ${MARK_WORDS[tool]?.toLowerCase()}`;
}

/** A mat reaches beyond the player: while its corners are clicked the whole picture is shown. */
function useWholeForMat(tool: string | null, look: Look | null, setLook: (look: Look | null) => void): void {
  const before = useRef<{ look: Look | null } | null>(null);
  useEffect(() => {
    if (tool === MAT && !before.current) {
      before.current = { look };
      setLook("whole");
    } else if (tool !== MAT && before.current) {
      setLook(before.current.look);
      before.current = null;
    }
  }, [tool, look, setLook]);
  // Turning to the other view with the mat in hand puts it down as well.
  useEffect(
    () => () => {
      if (before.current) setLook(before.current.look);
    },
    [setLook],
  );
}

function LengthInHand({ a, b }: { a: Point; b: Point }) {
  return <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="#D8AA4C" strokeWidth={2} strokeDasharray="4 3" />;
}

/** The same object while the view is the same, so that drawing is not asked for without need. */
function useStableView(view: View | null): View | null {
  const last = useRef<View | null>(null);
  if (!sameView(last.current, view)) last.current = view;
  return last.current;
}
