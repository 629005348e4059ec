import { memo } from "react";
import type { Point } from "../../drawn/stageView";
import { number, type Units } from "../../units";
import type { Calibration } from "../edits";

/** The known length as it lies in the picture. */
export const KnownLengthLine = memo(function KnownLengthLine(props: {
  known: Calibration;
  place: (point: Point) => Point;
  units: Units;
}) {
  const a = props.place({ x: props.known.ax, y: props.known.ay });
  const b = props.place({ x: props.known.bx, y: props.known.by });
  const left = a.x < b.x ? a : b;
  return (
    <g className="pointer-events-none" stroke="#D8AA4C">
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} strokeWidth={1.5} strokeDasharray="2 4" />
      {[a, b].map((end, i) => (
        <line key={i === 0 ? "a" : "b"} x1={end.x} x2={end.x} y1={end.y - 7} y2={end.y + 7} strokeWidth={2} />
      ))}
      <text
        // At its left end: in the middle of it lies the ball.
        x={left.x}
        y={left.y + 18}
        className="num"
        fontSize={11}
        fill="#F6F3EA"
        stroke="none"
      >
        {props.known.length_m === null
          ? "how long?"
          : `${number(props.known.length_m, "m", props.units)} ${props.units}`}
      </text>
    </g>
  );
});
