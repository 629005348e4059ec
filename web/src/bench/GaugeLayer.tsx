import type { Schemas } from "../api/client";
import { type Units, withError } from "../units";
import type { Point } from "./stageView";

type Gauge = Schemas["GaugeOut"];

interface Props {
  gauges: Gauge[];
  frame: number | null; // null: every span
  place: (point: Point) => Point;
  units: Units;
  ink: string;
}

/** The lines of the trade over a picture, with what they measure on this frame. */
export function GaugeLayer({ gauges, frame, place, units, ink }: Props) {
  // What is measured on one side of the player is written on that side.
  const across = gauges.flatMap((gauge) => gauge.lines.map((line) => place(line.b).x));
  const middle = (Math.min(...across) + Math.max(...across)) / 2;
  return (
    <g className="pointer-events-none">
      {gauges.map((gauge) => (
        <g key={gauge.id}>
          {gauge.lines.map((line) => {
            const a = place(line.a);
            const b = place(line.b);
            return (
              <g key={line.style}>
                <line
                  x1={a.x}
                  y1={a.y}
                  x2={b.x}
                  y2={b.y}
                  stroke="#10201D"
                  strokeOpacity={0.55}
                  strokeWidth={3.5}
                />
                <line
                  x1={a.x}
                  y1={a.y}
                  x2={b.x}
                  y2={b.y}
                  stroke={line.style === "plumb" ? "#F6F3EA" : ink}
                  strokeWidth={1.5}
                  strokeDasharray={line.style === "gate" ? "7 5" : undefined}
                />
                {line.style === "plumb" && <circle cx={a.x} cy={a.y} r={4} fill="#B8892B" stroke="#10201D" />}
              </g>
            );
          })}
        </g>
      ))}
      {gauges
        .flatMap((gauge) => gauge.spans.map((span) => ({ gauge, span })))
        .filter(({ span }) => frame === null || span.frame === frame)
        .map(({ gauge, span }) => (
          <Span
            key={gauge.id}
            id={gauge.id}
            span={span}
            toLeft={place(span.b).x < middle}
            place={place}
            units={units}
          />
        ))}
    </g>
  );
}

function Span(props: {
  id: string;
  span: Gauge["spans"][number];
  toLeft: boolean;
  place: Props["place"];
  units: Units;
}) {
  const a = props.place(props.span.a);
  const b = props.place(props.span.b);
  // Spans of both edges lie at about one height: each gate's is drawn a little lower than the plumb's.
  const y = b.y + (props.id === "trail_plumb" ? 0 : 16);
  const name = props.id === "trail_plumb" ? "gap" : "moved";
  const text = `${name} ${withError(props.span.value, props.span.u95, "m", props.units, props.id !== "trail_plumb")}`;
  const { toLeft } = props;
  const width = text.length * 6.7 + 10;
  const textX = toLeft ? Math.min(a.x, b.x) - width - 6 : Math.max(a.x, b.x) + 6;
  return (
    <g data-span={props.id}>
      <line x1={a.x} y1={y} x2={b.x} y2={y} stroke="#10201D" strokeWidth={5} strokeOpacity={0.6} />
      <line x1={a.x} y1={y} x2={b.x} y2={y} stroke="#D8AA4C" strokeWidth={2.5} />
      {[a.x, b.x].map((x, i) => (
        <line
          key={i === 0 ? "start" : "end"}
          x1={x}
          x2={x}
          y1={y - 6}
          y2={y + 6}
          stroke="#D8AA4C"
          strokeWidth={2}
        />
      ))}
      <rect x={textX} y={y - 9} width={width} height={18} rx={2} fill="#10201D" fillOpacity={0.82} />
      <text x={textX + 5} y={y + 4} className="num" fontSize={11} fill="#F6F3EA">
        {text}
      </text>
    </g>
  );
}
