import { angleAt, barbs, type Stroke } from "./chalk";
import type { Point } from "./stageView";

const CHALK = "#FFFDF4";
const SHADE = "#10201D";
const WIDE = 3.5;
const HEAD = 15; // of an arrow, px
const ARC = 26; // about the corner of an angle, px
const LETTER = 8.2;

/** What is drawn in chalk on a frame, and the pointer, over its picture. */
export function ChalkLayer(props: {
  strokes: Stroke[];
  pointer: Point | null;
  place: (point: Point) => Point;
}) {
  const { strokes, pointer, place } = props;
  return (
    <g className="pointer-events-none" strokeLinecap="round" strokeLinejoin="round">
      {strokes.map((stroke) => (
        <g key={stroke.id} data-chalk={stroke.tool}>
          <Drawn stroke={stroke} points={stroke.points.map(place)} />
        </g>
      ))}
      {pointer && <Pointer at={place(pointer)} />}
    </g>
  );
}

function Drawn({ stroke, points }: { stroke: Stroke; points: Point[] }) {
  const [a, b, c] = points;
  if (!a) return null;
  if (stroke.tool === "text") return <Words at={a} text={stroke.text ?? ""} />;
  if (stroke.tool === "ring") {
    const wide = b ? Math.hypot(b.x - a.x, b.y - a.y) : 0;
    return (
      <>
        <circle
          cx={a.x}
          cy={a.y}
          r={wide}
          fill="none"
          stroke={SHADE}
          strokeOpacity={0.6}
          strokeWidth={WIDE + 2.5}
        />
        <circle cx={a.x} cy={a.y} r={wide} fill="none" stroke={CHALK} strokeWidth={WIDE} />
      </>
    );
  }
  if (stroke.tool === "angle" && b && c) return <Angle a={a} corner={b} b={c} corners={stroke.points} />;
  const head = stroke.tool === "arrow" && b ? barbs(a, b, HEAD) : null;
  return (
    <>
      <Way points={points} />
      {head && b && <Way points={[head[0], b, head[1]]} />}
    </>
  );
}

function Way({ points }: { points: Point[] }) {
  const path = points.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(" ");
  return (
    <>
      <polyline points={path} fill="none" stroke={SHADE} strokeOpacity={0.6} strokeWidth={WIDE + 2.5} />
      <polyline points={path} fill="none" stroke={CHALK} strokeWidth={WIDE} />
    </>
  );
}

function Angle({ a, corner, b, corners }: { a: Point; corner: Point; b: Point; corners: Point[] }) {
  const [own, middle, other] = corners;
  const degrees = own && middle && other ? angleAt(middle, own, other) : 0;
  const to = (end: Point, far: number) => {
    const long = Math.hypot(end.x - corner.x, end.y - corner.y) || 1;
    return {
      x: corner.x + ((end.x - corner.x) / long) * far,
      y: corner.y + ((end.y - corner.y) / long) * far,
    };
  };
  const [from, till] = [to(a, ARC), to(b, ARC)];
  const turn =
    (from.x - corner.x) * (till.y - corner.y) - (from.y - corner.y) * (till.x - corner.x) > 0 ? 1 : 0;
  const half = { x: (from.x + till.x) / 2, y: (from.y + till.y) / 2 };
  const label = to(half, ARC + 24);
  return (
    <>
      <Way points={[a, corner, b]} />
      <path
        d={`M${from.x.toFixed(1)} ${from.y.toFixed(1)}A${ARC} ${ARC} 0 0 ${turn} ${till.x.toFixed(1)} ${till.y.toFixed(1)}`}
        fill="none"
        stroke={CHALK}
        strokeWidth={1.5}
      />
      <Words at={{ x: label.x - 16, y: label.y }} text={`${degrees.toFixed(0)}°`} />
    </>
  );
}

function Words({ at, text }: { at: Point; text: string }) {
  return (
    <>
      <rect
        x={at.x - 5}
        y={at.y - 13}
        width={text.length * LETTER + 10}
        height={22}
        rx={2}
        fill={SHADE}
        fillOpacity={0.78}
      />
      <text x={at.x} y={at.y + 3.5} fontSize={14} fill={CHALK}>
        {text}
      </text>
    </>
  );
}

/** Where the instructor points: a brass ring that leaves what is pointed at to be seen. */
function Pointer({ at }: { at: Point }) {
  return (
    <g data-pointer>
      <circle cx={at.x} cy={at.y} r={13} fill="none" stroke={SHADE} strokeOpacity={0.6} strokeWidth={5} />
      <circle
        cx={at.x}
        cy={at.y}
        r={13}
        fill="#D8AA4C"
        fillOpacity={0.18}
        stroke="#D8AA4C"
        strokeWidth={2.5}
      />
    </g>
  );
}
