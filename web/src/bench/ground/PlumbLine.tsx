import { memo } from "react";
import type { Schemas } from "../../api/client";
import type { Point } from "../../drawn/stageView";

/** An upright edge of the picture that was drawn along. */
export const PlumbLine = memo(function PlumbLine(props: {
  ends: Schemas["PlumbValue"];
  place: (point: Point) => Point;
  chosen: boolean;
}) {
  const { ends, place, chosen } = props;
  const a = place({ x: ends.ax, y: ends.ay });
  const b = place({ x: ends.bx, y: ends.by });
  return (
    <g data-plumb>
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="#10201D" strokeWidth={4} strokeOpacity={0.6} />
      <line
        x1={a.x}
        y1={a.y}
        x2={b.x}
        y2={b.y}
        stroke="#D8AA4C"
        strokeWidth={chosen ? 2.5 : 1.5}
        strokeDasharray="7 3 1 3"
      />
    </g>
  );
});
