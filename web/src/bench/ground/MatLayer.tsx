import { memo } from "react";
import type { Point } from "../../drawn/stageView";
import type { Mat } from "../edits";

interface Props {
  corners: Mat["corners"];
  place: (point: Point) => Point;
  whole: boolean; // all four are there
  chosen: boolean;
}

/** Corners in the order round the mat, so that its edges never cross. */
function around(corners: Point[]): Point[] {
  const cx = corners.reduce((sum, corner) => sum + corner.x, 0) / corners.length;
  const cy = corners.reduce((sum, corner) => sum + corner.y, 0) / corners.length;
  const angle = (corner: Point) => Math.atan2(corner.y - cy, corner.x - cx);
  return [...corners].sort((a, b) => angle(a) - angle(b));
}

/** The mat as it lies in the picture; its corners can be taken hold of. */
export const MatLayer = memo(function MatLayer({ corners, place, whole, chosen }: Props) {
  const edge = around(corners)
    .map((corner) => place(corner))
    .map((corner) => `${corner.x.toFixed(1)},${corner.y.toFixed(1)}`)
    .join(" ");
  return (
    <g>
      {whole && (
        <polygon
          points={edge}
          fill="none"
          stroke="#D8AA4C"
          strokeWidth={1.5}
          strokeDasharray="2 4"
          className="pointer-events-none"
        />
      )}
      {corners.map((corner, i) => {
        const { x, y } = place(corner);
        return (
          <g key={`${corner.x} ${corner.y}`}>
            <path
              d={`M${x - 7} ${y}H${x + 7}M${x} ${y - 7}V${y + 7}`}
              stroke="#D8AA4C"
              strokeWidth={chosen ? 2 : 1.25}
              className="pointer-events-none"
            />
            <circle cx={x} cy={y} r={9} fill="transparent" data-corner={i} className="cursor-grab" />
          </g>
        );
      })}
    </g>
  );
});
