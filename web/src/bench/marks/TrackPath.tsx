import { useQuery } from "@tanstack/react-query";
import { memo } from "react";
import { pathQuery } from "../../api/queries";
import type { Point } from "../../drawn/stageView";
import { onOf, type SideState } from "../benchState";
import type { Track } from "./tracks";

/** Where a mark goes over the swing: raw places as dots, the path without noise as a line, bridged stretches broken. */
export const TrackPath = memo(function TrackPath(props: {
  state: SideState;
  track: Track;
  place: (point: Point) => Point;
  ink: string;
}) {
  const { state, track, place, ink } = props;
  const smooth = useQuery(pathQuery(state.clip.id, track.name, onOf(state).version)).data;
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
});
