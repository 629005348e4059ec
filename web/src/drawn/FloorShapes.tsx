import type { Layout, OnFloor } from "./floorLayout";
import type { Point } from "./stageView";

const PATH = ["address", "shaft_back", "arm_back", "top", "arm_down", "shaft_down", "impact"];
const SHOE = ["heel", "foot_outer", "toe", "foot_inner"] as const;

/** A swing from above: the shoes and the line along the toes at address, and the way of the hips. */
export function FloorShapes(props: { marks: OnFloor[]; at: Layout["at"]; ink: string; here?: string }) {
  const { marks, at, ink, here } = props;
  const point = (name: string, when: string): Point | undefined => {
    const mark = marks.find((each) => each.name === name && each.at === when);
    return mark && at(mark.t, mark.b);
  };
  const toes = [point("trail_toe", "address"), point("lead_toe", "address")];
  return (
    <>
      {(["lead", "trail"] as const).map((foot) => (
        <Shoe key={foot} ink={ink} outline={SHOE.map((part) => point(`${foot}_${part}`, "address"))} />
      ))}
      {toes[0] && toes[1] && (
        <line
          x1={toes[0].x}
          y1={toes[0].y}
          x2={toes[1].x}
          y2={toes[1].y}
          stroke={ink}
          strokeDasharray="5 3"
        />
      )}
      {(["lead_hip", "trail_hip"] as const).map((hip) => {
        const way = PATH.flatMap((when) => point(hip, when) ?? []);
        const now = here && point(hip, here);
        return (
          <g key={hip} stroke={ink} fill="none">
            {way.length > 1 && (
              <polyline points={way.map(({ x, y }) => `${x},${y}`).join(" ")} strokeWidth={1.5} />
            )}
            {way.map(({ x, y }, i) => (
              <circle key={PATH[i]} cx={x} cy={y} r={1.8} fill={ink} stroke="none" />
            ))}
            {now && <circle cx={now.x} cy={now.y} r={4.5} strokeWidth={1.5} />}
          </g>
        );
      })}
    </>
  );
}

// A sole: heel 0 to toe 1, then inner edge 0 to outer edge 1, once about.
const SOLE: [toe: number, outer: number][] = [
  [0, 0.5],
  [0.02, 0.76],
  [0.2, 0.84],
  [0.45, 0.86],
  [0.68, 1.02],
  [0.9, 0.88],
  [1.01, 0.5],
  [0.95, 0.16],
  [0.7, -0.02],
  [0.45, 0.22],
  [0.2, 0.18],
  [0.02, 0.26],
];

/** A shoe's sole through the marks of its four edges; its heel-to-toe line where not all are there. */
export function Shoe({ outline, ink }: { outline: (Point | undefined)[]; ink: string }) {
  const [heel, outer, toe, inner] = outline;
  if (!heel || !toe) return null;
  const sole =
    outer &&
    inner &&
    SOLE.map(([along, across]) => ({
      x: heel.x + along * (toe.x - heel.x) + (across - 0.5) * (outer.x - inner.x),
      y: heel.y + along * (toe.y - heel.y) + (across - 0.5) * (outer.y - inner.y),
    }));
  return (
    <>
      {sole && <path d={rounded(sole)} stroke={ink} fill={ink} fillOpacity={0.22} />}
      <line
        x1={heel.x}
        y1={heel.y}
        x2={toe.x}
        y2={toe.y}
        stroke={ink}
        strokeWidth={sole ? 1 : 1.5}
        strokeOpacity={sole ? 0.5 : 1}
      />
    </>
  );
}

/** A closed line through the middles between points, bent at each of them. */
function rounded(points: Point[]): string {
  const middles = points.map((point, i) => {
    const next = points[(i + 1) % points.length] ?? point;
    return { x: (point.x + next.x) / 2, y: (point.y + next.y) / 2 };
  });
  const start = middles.at(-1) ?? { x: 0, y: 0 };
  return `M${start.x} ${start.y}${points
    .map((point, i) => `Q${point.x} ${point.y} ${middles[i]?.x} ${middles[i]?.y}`)
    .join("")}Z`;
}
