import { type Units, withError } from "../units";
import { type Hand, SHORT_WORDS, SIGNED, sidesOf } from "../words";
import type { Gauge } from "./gauge";
import type { Point } from "./stageView";

type Shape = Gauge["shapes"][number];

interface Props {
  gauges: Gauge[];
  frame: number | null; // null: every shape
  place: (point: Point) => Point;
  wide: number; // how wide the picture is: labels stay inside
  clear?: Point[]; // the player's marks, which no label may lie over
  units: Units;
  ink: string;
  hand?: Hand; // of the student who reads it: left and right instead of lead and trail
}

const DASHES: Record<Gauge["lines"][number]["style"], string | undefined> = {
  plumb: undefined,
  gate: "7 5",
  post: "2 4",
  wall: "12 3",
};
const LABEL_ROW = 19;
const LETTER = 6.7; // how wide one is
const GAP = 14; // between the player and a label

/** The lines of the trade over a picture, with what they measure on this frame. */
export function GaugeLayer({ gauges, frame, place, wide, clear = [], units, ink, hand }: Props) {
  const shapes = gauges.flatMap((gauge) =>
    gauge.shapes
      .filter((shape) => frame === null || shape.frame === frame)
      .map((shape) => ({
        gauge,
        shape,
        points: shape.points.map(place),
        target: (shape.target ?? []).map(place),
      })),
  );
  const across = [
    ...gauges.flatMap((gauge) => gauge.lines.map((line) => place(line.b).x)),
    ...shapes.flatMap(({ points }) => points.map((point) => point.x)),
    ...clear.map((point) => place(point).x),
  ];
  const [left, right] = [Math.min(...across), Math.max(...across)];
  const middle = (left + right) / 2;
  // Labels stand in a column to each side of the player, and where there is no room at the picture's top:
  // never over feet or hips.
  const labels = shapes.flatMap(({ gauge, shape, points }): Labelled[] => {
    const said = saying(gauge, shape, units);
    const text = hand ? sidesOf(said, hand) : said;
    if (!text) return [];
    const end = points.at(-1) ?? { x: 0, y: 0 };
    const width = text.length * LETTER + 10;
    const room = { left: left - width - GAP >= 2, right: right + GAP + width <= wide - 2 };
    const nearer = end.x < middle ? ("left" as const) : ("right" as const);
    const other = nearer === "left" ? ("right" as const) : ("left" as const);
    const stands = room[nearer] ? nearer : room[other] ? other : "top";
    return [{ gauge, shape, end, stands, text, width }];
  });
  const on = (stands: Labelled["stands"]) => labels.filter((each) => each.stands === stands);
  const rows = [
    ...stacked(on("left")).map((each) => ({ ...each, x: left - each.width - GAP })),
    ...stacked(on("right")).map((each) => ({ ...each, x: right + GAP })),
    ...on("top").map((each, i) => ({
      ...each,
      x: Math.max(2, Math.min(each.end.x - each.width / 2, wide - each.width - 2)),
      y: (i + 0.7) * LABEL_ROW,
    })),
  ];
  return (
    <g className="pointer-events-none">
      {gauges.map((gauge) => (
        <g key={gauge.id}>
          {gauge.lines.map((line) => {
            const a = place(line.a);
            const b = place(line.b);
            return (
              <g key={line.style}>
                <Stroke
                  points={[a, b]}
                  ink={line.style === "plumb" ? "#F6F3EA" : ink}
                  dashes={DASHES[line.style]}
                />
                {line.style === "plumb" && <circle cx={a.x} cy={a.y} r={4} fill="#B8892B" stroke="#10201D" />}
              </g>
            );
          })}
        </g>
      ))}
      {shapes.map(({ gauge, shape, points, target }) => (
        <g key={`${gauge.id} ${shape.frame}`} data-shape={gauge.id}>
          {target.length > 1 && <Target points={target} />}
          {shape.style === "span" ? (
            <Span points={points} />
          ) : (
            <Stroke points={points} ink="#D8AA4C" dashes={shape.style === "level" ? "9 3" : undefined} />
          )}
        </g>
      ))}
      {rows.map((label) => (
        <Label key={`${label.gauge.id} ${label.shape.frame}`} label={label} />
      ))}
    </g>
  );
}

interface Labelled {
  gauge: Gauge;
  shape: Shape;
  end: Point;
  stands: "left" | "right" | "top"; // of the player; of the picture
  text: string;
  width: number;
}

/** What a shape measures, in words. */
function saying(gauge: Gauge, { value, u95, reading, unit }: Shape, units: Units): string {
  if (value === null || u95 === null) return "";
  return `${SHORT_WORDS[gauge.id] ?? SHORT_WORDS[reading] ?? reading} ${withError(value, u95, unit, units, SIGNED.has(reading))}`;
}

/** Labels of one side from top to bottom, none over another. */
function stacked(labels: Labelled[]): (Labelled & { y: number })[] {
  let last = Number.NEGATIVE_INFINITY;
  return [...labels]
    .sort((a, b) => a.end.y - b.end.y)
    .map((label) => {
      last = Math.max(label.end.y, last + LABEL_ROW);
      return { ...label, y: last };
    });
}

function Stroke({ points, ink, dashes }: { points: Point[]; ink: string; dashes?: string }) {
  const path = points.map((point) => `${point.x.toFixed(1)},${point.y.toFixed(1)}`).join(" ");
  return (
    <>
      <polyline points={path} fill="none" stroke="#10201D" strokeOpacity={0.55} strokeWidth={3.5} />
      <polyline points={path} fill="none" stroke={ink} strokeWidth={1.5} strokeDasharray={dashes} />
    </>
  );
}

/** Where the end should lie by the teaching model: a broad brass band with an edge at each end. */
function Target({ points }: { points: Point[] }) {
  const path = points.map((point) => `${point.x.toFixed(1)},${point.y.toFixed(1)}`).join(" ");
  return (
    <g data-target>
      <polyline points={path} fill="none" stroke="#10201D" strokeOpacity={0.5} strokeWidth={14} />
      <polyline points={path} fill="none" stroke="#D8AA4C" strokeOpacity={0.6} strokeWidth={11} />
    </g>
  );
}

/** A measured way from its start to the mark, with a tick at each end. */
function Span({ points }: { points: Point[] }) {
  const [a, b] = [points[0], points.at(-1)];
  if (!a || !b) return null;
  const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
  const [across, down] = [(-(b.y - a.y) / length) * 6, ((b.x - a.x) / length) * 6];
  return (
    <>
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="#10201D" strokeWidth={5} strokeOpacity={0.6} />
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="#D8AA4C" strokeWidth={2.5} />
      {[a, b].map((end, i) => (
        <line
          key={i === 0 ? "start" : "end"}
          x1={end.x - across}
          y1={end.y - down}
          x2={end.x + across}
          y2={end.y + down}
          stroke="#D8AA4C"
          strokeWidth={2}
        />
      ))}
    </>
  );
}

function Label({ label }: { label: Labelled & { x: number; y: number } }) {
  const { gauge, end, stands, x, y, text, width } = label;
  const from = { left: x + width, right: x, top: x + width / 2 }[stands];
  return (
    <g data-span={gauge.id}>
      <line x1={end.x} y1={end.y} x2={from} y2={y} stroke="#D8AA4C" strokeWidth={1} strokeOpacity={0.75} />
      <rect x={x} y={y - 9} width={width} height={18} rx={2} fill="#10201D" fillOpacity={0.82} />
      <text x={x + 5} y={y + 4} className="num" fontSize={11} fill="#F6F3EA">
        {text}
      </text>
    </g>
  );
}
