import { useQuery } from "@tanstack/react-query";
import { memo, useCallback, useEffect, useRef } from "react";
import { meQuery } from "../../api/queries";
import { moved, still } from "../../drawn/cameraMotion";
import { type Look, type Point, sameView, toPicture, toStage, type View } from "../../drawn/stageView";
import { useSize } from "../../parts/useSize";
import type { Units } from "../../units";
import { useBench, useBenchStore } from "../benchContext";
import { chalkIn, isGround, MAT, onOf, paired, type Side, type SideState } from "../benchState";
import { useFrames } from "../frames/useFrames";
import { useLaying } from "../ground/useLaying";
import { HandTest, useHandTest } from "../marks/HandTest";
import { HAND_SD_PX, unitPx } from "../marks/hand";
import { MarkFan } from "../marks/MarkFan";
import type { ProposedMark } from "../marks/ProposedMarks";
import { ChalkWords } from "../walk/ChalkWords";
import { usePointed } from "../walk/usePointed";
import type { Scene } from "./hand/scene";
import { Loupe } from "./Loupe";
import { OnPicture } from "./OnPicture";
import { Overlay } from "./Overlay";
import { StageFooter } from "./StageFooter";
import { StageHeader } from "./StageHeader";
import { StageNotes } from "./StageNotes";
import { useFrameMarks } from "./useFrameMarks";
import { useHand } from "./useHand";
import { useNudge } from "./useNudge";
import { useStageView } from "./useStageView";
import { ZoomButtons } from "./ZoomButtons";

/** The frame with the lines of the trade on top; at Mark, marks are put and moved here. */
export const Stage = memo(function Stage({ side, state, units }: Props) {
  const { clip } = state;
  const { frame } = useBench((bench) => bench.stands[side]);
  const active = useBench((bench) => bench.active === side);
  const twin = useBench(paired);
  const marking = useBench((bench) => bench.station === "mark");
  const tool = useBench((bench) => (bench.active === side ? bench.tool : null));
  const selected = useBench((bench) => (bench.active === side ? bench.selected : null));
  const store = useBenchStore();
  const edit = useBench((bench) => bench.edit);
  const set = useBench((bench) => bench.set);
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useSize(box);
  const laying = useLaying(side, state, tool);

  const { view: gliding, look, zoom, shift, pinch, setLook } = useStageView(side, state, box, size);
  useWholeForMat(tool, look, setLook);
  const view = useStableView(gliding);
  const drawn = useFrames(clip, side, canvas, view, size);
  const shownFrame = drawn.frame ?? frame;
  const found = useFrameMarks(state, shownFrame, marking);
  const handSd = (useQuery(meQuery).data?.hand_sd_px ?? HAND_SD_PX) * unitPx(state);
  const test = useHandTest(side, state);

  const putMark = (name: string, { x, y }: Point, gesture?: string) =>
    edit(
      side,
      { kind: "mark", name, frame: shownFrame, place: { x, y, sd_px: handSd, source: "hand", shared_px: 0 } },
      gesture,
    );
  const sceneOf = (from: View): Scene => {
    const motion = clip.camera_motion;
    const { mat } = onOf(state);
    return {
      tool,
      selected,
      // What is not seen is not taken hold of.
      spots: marking
        ? found.marks.map(({ name, x, y }) => ({
            name,
            at: toStage({ x, y }, from, size),
            place: { x, y },
            grouped: found.grouped.has(name),
          }))
        : [],
      corners:
        marking && mat ? mat.corners.map((own) => toStage(moved(motion, shownFrame, own), from, size)) : [],
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
  const chosen = selected ? found.marks.find(({ name }) => name === selected) : undefined;
  const pressed = useNudge({
    view,
    mark: chosen,
    hand: tool && !isGround(tool) && found.proposed.length === 0 ? tool : null,
    put: (name, at, gesture) => putMark(name, at, gesture && `${gesture} ${shownFrame}`),
    used: hand.forget,
  });
  const pointed = usePointed(side, view, size);
  const { setFan } = hand;
  const closeFan = useCallback(() => {
    setFan(null);
    box.current?.focus();
  }, [setFan]);
  const aiming = (tool !== null && !chalkIn(tool)) || test.asks !== null || hand.drags;

  return (
    <section
      aria-label={
        twin && side === "reference"
          ? "Other view stage"
          : side === "student"
            ? "Student stage"
            : "Reference stage"
      }
      data-side={side}
      data-frame={shownFrame}
      data-theme="bench-dusk"
      className={`relative flex min-h-0 min-w-0 flex-1 flex-col overflow-hidden rounded bg-dusk text-paper select-none ring-2 ${
        active ? `forced-colors:outline-4 ${RING[twin ? "student" : side]}` : "ring-transparent"
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
        onPointerMoveCapture={pointed.move}
        onPointerOut={pointed.leave}
        onKeyDown={pressed}
      >
        <canvas
          ref={canvas}
          className="absolute inset-0 h-full w-full"
          data-scale={view?.scale}
          data-cx={view?.cx}
          data-cy={view?.cy}
          data-drawn={drawn.frame ?? ""}
        />
        {view && side === "student" && <Overlay lower={state} view={view} stage={size} />}
        {view && (
          <OnPicture
            side={side}
            state={state}
            units={units}
            frame={shownFrame}
            view={view}
            size={size}
            found={found}
            corners={laying.corners}
            start={hand.start}
            pointer={hand.pointer}
            bare={test.asks !== null}
          />
        )}
        <ZoomButtons zoom={zoom} />
        {test.asks && <HandTest test={test} />}
        <StageNotes
          side={side}
          state={state}
          proposed={drawn.frame === null ? UNSEEN : found.proposed}
          corners={laying.corners.length}
          chosen={chosen?.name}
        />
        {aiming && hand.pointer && view && (
          <Loupe
            image={drawn.image}
            picture={clip}
            at={toPicture(hand.pointer, view, size)}
            under={hand.pointer}
            stage={size}
            scale={view.scale}
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
        {hand.writing && (
          <ChalkWords
            at={hand.writing.at}
            write={(text) => {
              const { place } = hand.writing ?? { place: { x: 0, y: 0 } };
              const stroke = {
                clip: clip.id,
                frame: shownFrame,
                tool: "text" as const,
                points: [place],
                text,
              };
              if (text) set({ chalk: [...store.getState().chalk, { ...stroke, id: crypto.randomUUID() }] });
              hand.setWriting(null);
              box.current?.focus();
            }}
          />
        )}
        {hand.fan && (
          <MarkFan
            fan={hand.fan}
            stage={size}
            choose={(name) => {
              set({ selected: name, tool: null });
              closeFan();
            }}
            close={closeFan}
          />
        )}
      </div>
      <StageFooter side={side} state={state} frame={shownFrame} exact={drawn.exact} />
    </section>
  );
});

const UNSEEN: ProposedMark[] = []; // nothing is taken before its picture is there
const RING: Record<Side, string> = { student: "ring-clay", reference: "ring-[#8FB4D8]" };

interface Props {
  side: Side;
  state: SideState;
  units: Units;
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

/** The same object while the view is the same, so that drawing is not asked for without need. */
function useStableView(view: View | null): View | null {
  const last = useRef<View | null>(null);
  if (!sameView(last.current, view)) last.current = view;
  return last.current;
}
