import { useCallback, useMemo } from "react";
import { ChalkLayer } from "../../drawn/ChalkLayer";
import { moved } from "../../drawn/cameraMotion";
import { GaugeLayer } from "../../drawn/GaugeLayer";
import { INK } from "../../drawn/ink";
import { type Point, type Size, toStage, type View } from "../../drawn/stageView";
import type { Units } from "../../units";
import { isBody } from "../../words";
import { useBench } from "../benchContext";
import { isGround, MAT, onOf, PLUMB, type Side, type SideState } from "../benchState";
import { KnownLengthLine } from "../ground/KnownLengthLine";
import { MatLayer } from "../ground/MatLayer";
import { PlumbLine } from "../ground/PlumbLine";
import { MarkLayer } from "../marks/MarkLayer";
import { ProposedMarkLayer } from "../marks/ProposedMarks";
import { TrackPath } from "../marks/TrackPath";
import { whose } from "../whose";
import type { useFrameMarks } from "./useFrameMarks";

interface Props {
  side: Side;
  state: SideState;
  units: Units;
  frame: number;
  view: View;
  size: Size;
  found: ReturnType<typeof useFrameMarks>;
  corners: Point[]; // of a mat that is being laid
  start: Point | null; // of a line that is being drawn
  pointer: Point | null;
  bare: boolean; // no mark is to be seen: the hand is tested
}

/** The lines of the trade on a frame; at Mark, or while they are asked for, its marks. */
export function OnPicture(props: Props) {
  const { side, state, units, frame, view, size, found, corners, start, pointer, bare } = props;
  const on = onOf(state);
  const marking = useBench((bench) => bench.station === "mark");
  const covered = useBench((bench) => bench.station !== "mark" && !bench.uncovered);
  const tool = useBench((bench) => (bench.active === side ? bench.tool : null));
  const selected = useBench((bench) => (bench.active === side ? bench.selected : null));
  const gauges = useShownGauges(state);
  const drawn = useBench((bench) => bench.chalk);
  const chalk = useMemo(
    () => drawn.filter((stroke) => stroke.clip === state.clip.id && stroke.frame === frame),
    [drawn, state.clip.id, frame],
  );
  const player = useMemo(
    () => on.marks.filter((mark) => mark.frame === frame && isBody(mark.name)),
    [on.marks, frame],
  );
  const place = useCallback((point: Point) => toStage(point, view, size), [view, size]);
  const placeStill = usePlaceStill(state, frame, place);
  const ink = INK[useBench((bench) => whose(bench, side))];
  const track = marking ? found.tracks.find(({ name }) => name === selected) : undefined;
  return (
    <svg className="absolute inset-0 h-full w-full" aria-hidden="true">
      <GaugeLayer
        gauges={gauges}
        frame={frame}
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
      {tool === MAT && <MatLayer corners={corners} place={placeStill} whole={false} chosen />}
      <ChalkLayer strokes={chalk} pointer={null} place={place} />
      {start && pointer && <LengthInHand a={placeStill(start)} b={pointer} />}
      {!bare && !covered && (
        <>
          {marking && <ProposedMarkLayer marks={found.proposed} place={place} scale={view.scale} ink={ink} />}
          {track && <TrackPath state={state} track={track} place={place} ink={ink} />}
          <MarkLayer
            marks={found.marks}
            place={place}
            ink={ink}
            chosen={tool ?? selected}
            aim={tool && !isGround(tool) ? pointer : null}
          />
        </>
      )}
    </svg>
  );
}

/** The gauges that are pinned, and those of the reading that is looked at. */
function useShownGauges(state: SideState) {
  const { gauges } = onOf(state);
  const pinned = useBench((bench) => bench.pinned);
  const looked = useBench((bench) => bench.focus?.reading);
  return useMemo(
    () =>
      gauges.filter(
        (gauge) => pinned.includes(gauge.id) || gauge.shapes.some((shape) => shape.reading === looked),
      ),
    [gauges, pinned, looked],
  );
}

/** A mat, a known length and the lines of the trade stand in the range: they go with a hand-held camera. */
function usePlaceStill(state: SideState, frame: number, place: (point: Point) => Point) {
  const motion = state.clip.camera_motion;
  const moves = motion ? frame : 0; // a camera that stood is the same on every frame
  return useMemo(
    () => (motion ? (point: Point) => place(moved(motion, moves, point)) : place),
    [motion, moves, place],
  );
}

function LengthInHand({ a, b }: { a: Point; b: Point }) {
  return <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="#D8AA4C" strokeWidth={2} strokeDasharray="4 3" />;
}
