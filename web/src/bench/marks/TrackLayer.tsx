import { useQuery } from "@tanstack/react-query";
import { pathQuery } from "../../api/queries";
import { MARK_WORDS } from "../../words";
import type { SideState } from "../benchState";
import type { Point } from "../stage/stageView";
import type { Track, TrackedMark } from "./tracks";

interface Props {
  state: SideState;
  marks: TrackedMark[];
  tracks: Track[];
  place: (point: Point) => Point;
  ink: string;
  selected: string | null;
}

const ACROSS = 5; // half of a diamond's diagonal

/** Followed marks: diamonds, so that they are told from placed rings; the chosen one with its path. */
export function TrackLayer({ state, marks, tracks, place, ink, selected }: Props) {
  const chosen = tracks.find((track) => track.name === selected);
  return (
    <g>
      {chosen && <Path state={state} track={chosen} place={place} ink={ink} />}
      {marks.map((mark) => {
        const { x, y } = place(mark);
        const reach = mark.name === selected ? ACROSS * 1.6 : ACROSS;
        const outline = `M${x} ${y - reach}l${reach} ${reach}l${-reach} ${reach}l${-reach} ${-reach}z`;
        return (
          <g key={mark.name} data-mark={mark.name} data-tracked className="cursor-move">
            <title>{`${MARK_WORDS[mark.name]} (followed, ±${(1.96 * mark.sd_px).toFixed(1)} px)`}</title>
            <circle cx={x} cy={y} r={13} fill="transparent" />
            <path d={outline} fill="none" stroke="#10201D" strokeWidth={4} />
            <path d={outline} fill="none" stroke={ink} strokeWidth={1.5} />
            <circle cx={x} cy={y} r={1.2} fill={ink} />
          </g>
        );
      })}
    </g>
  );
}

/** Where a mark goes over the swing: raw places as dots, the path without noise as a line, bridged stretches broken. */
function Path(props: { state: SideState; track: Track; place: Props["place"]; ink: string }) {
  const { state, track, place, ink } = props;
  const smooth = useQuery(pathQuery(state.clip.id, track.name, state.on.version)).data;
  const at = (x: (number | null)[], y: (number | null)[], i: number) => {
    const [px, py] = [x[i], y[i]];
    return px == null || py == null ? null : place({ x: px, y: py });
  };
  return (
    <g className="pointer-events-none" data-path={track.name}>
      {track.x.map((_, i) => {
        const point = at(track.x, track.y, i);
        // biome-ignore lint/suspicious/noArrayIndexKey: the index is the frame
        return point && <circle key={i} cx={point.x} cy={point.y} r={1} fill={ink} fillOpacity={0.55} />;
      })}
      {smooth?.x.map((_, i) => {
        const [from, to] = [at(smooth.x, smooth.y, i - 1), at(smooth.x, smooth.y, i)];
        const bridged = smooth.bridged.includes(smooth.first + i);
        return (
          from &&
          to && (
            <line
              // biome-ignore lint/suspicious/noArrayIndexKey: the index is the frame
              key={i}
              x1={from.x}
              y1={from.y}
              x2={to.x}
              y2={to.y}
              stroke="#F6F3EA"
              strokeWidth={1}
              strokeDasharray={bridged ? "2 2" : undefined}
            />
          )
        );
      })}
    </g>
  );
}
