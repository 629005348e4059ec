import { FloorShapes } from "../../drawn/FloorShapes";
import { BALL_Y, HEIGHT, type Layout, WIDTH } from "../../drawn/floorLayout";
import { PAPER_INK } from "../../drawn/ink";
import { type Units, withError } from "../../units";
import { CHECKPOINT_WORDS, type Checkpoint, READING_WORDS, VIEW_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { onOf, pegsOf, type Side, type SideState } from "../benchState";
import { sectors } from "./floorSectors";
import type { Floor, FloorMark } from "./reading";

type Mark = FloorMark;

const CLOCK_M = 0.16; // radius of the floor clock

/** One swing's part of the plate. */
export function Plan(props: { side: Side; state?: SideState; plan: Floor; at: Layout["at"]; units: Units }) {
  const { side, state, plan, at, units } = props;
  const ink = PAPER_INK[side];
  const place = (name: string, when: Checkpoint): Mark | undefined =>
    plan.marks.find((mark) => mark.name === name && mark.at === when);
  const point = (mark?: Mark) => mark && at(mark.t, mark.b);
  const lies = place("ball", "address");
  const ball = point(lies);
  const toesB = ["lead_toe", "trail_toe"].map((toe) => place(toe, "address")?.b ?? Number.NaN);
  const ahead = lies
    ? withError(lies.b - ((toesB[0] ?? 0) + (toesB[1] ?? 0)) / 2, lies.u95_b, "m", units)
    : "";
  const toes = [point(place("trail_toe", "address")), point(place("lead_toe", "address"))];
  const now = useBench(({ stands }) => state && hereAt(state, stands[side].frame));
  return (
    <g stroke={ink} fill="none">
      <FloorShapes marks={plan.marks} at={at} ink={ink} here={now} />
      {ball && toes[0] && toes[1] && (
        <>
          <path
            d={`M${ball.x} ${(toes[0].y + toes[1].y) / 2}V${BALL_Y + 6}`}
            strokeDasharray="1 4"
            strokeWidth={1.5}
          />
          <circle cx={ball.x} cy={BALL_Y} r={4} strokeWidth={1.5} fill="var(--color-base-100)" />
          <text
            x={ball.x + (side === "student" ? -8 : 8)}
            y={BALL_Y + 3}
            textAnchor={side === "student" ? "end" : "start"}
            fontSize={9}
            className="num"
            fill={ink}
            stroke="var(--color-base-100)"
            strokeWidth={3}
            paintOrder="stroke"
          >
            {ahead}
          </text>
        </>
      )}
      {side === "student" &&
        state &&
        sectors(plan, state.readings).map(({ reading, from, ends }) => (
          <path
            key={reading}
            d={`M${[from, ...ends].map(({ t, b }) => `${at(t, b).x} ${at(t, b).y}`).join("L")}Z`}
            stroke="var(--color-accent)"
            fill="var(--color-accent)"
            fillOpacity={0.3}
          >
            <title>{READING_WORDS[reading]}: the model's band</title>
          </path>
        ))}
      {side === "student" && <Clock center={place("lead_hip", "top")} at={at} />}
      {plan.cameras.map((camera) => {
        const from = at(0, 0);
        const to = at(camera.t, camera.b);
        const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
        const [dx, dy] = [(to.x - from.x) / length, (to.y - from.y) / length];
        // The camera itself is far outside the plate: a wedge at its edge points to it.
        const reach = Math.min(
          Math.abs((WIDTH / 2 - 8) / (dx || 1e-9)),
          Math.abs((HEIGHT / 2 - 8) / (dy || 1e-9)),
        );
        const [x, y] = [WIDTH / 2 + dx * reach, HEIGHT / 2 + dy * reach];
        const turn = (Math.atan2(dy, dx) * 180) / Math.PI;
        return (
          <path
            key={camera.view}
            d="M6 0L-5 4.5V-4.5Z"
            transform={`translate(${x} ${y}) rotate(${turn})`}
            fill={ink}
            stroke="none"
          >
            <title>Camera {VIEW_WORDS[camera.view].toLowerCase()}</title>
          </path>
        );
      })}
    </g>
  );
}

/** Rays of the floor clock about the lead hip at the top: 9 is the target, 12 the ball. */
function Clock({ center, at }: { center?: Mark; at: Layout["at"] }) {
  if (!center) return null;
  return (
    <g stroke="var(--color-accent)">
      {[8, 9, 10].map((hour) => {
        const turn = ((hour - 9) * Math.PI) / 6;
        const from = at(center.t, center.b);
        const to = at(center.t + CLOCK_M * Math.cos(turn), center.b + CLOCK_M * Math.sin(turn));
        return (
          <g key={hour}>
            <line
              x1={from.x}
              y1={from.y}
              x2={to.x}
              y2={to.y}
              strokeWidth={hour === 8 ? 1.5 : 1}
              strokeDasharray={hour === 8 ? undefined : "3 3"}
            />
            <text
              x={to.x + Math.sign(to.x - from.x) * 8}
              y={to.y + 3}
              fontSize={9}
              textAnchor="middle"
              className="num"
              fill="var(--brass-words)"
              stroke="none"
            >
              {hour}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** Which way the target lies. */
export function Compass({
  left,
  wide = WIDTH,
  tall = HEIGHT,
}: {
  left: boolean;
  wide?: number;
  tall?: number;
}) {
  const x = left ? wide - 8 : 8;
  return (
    <text x={x} y={tall - 6} fontSize={10} textAnchor={left ? "end" : "start"} fill="currentColor">
      {left ? "target →" : "← target"}
    </text>
  );
}

/** The checkpoint that a stage stands on, if it stands on one. */
function hereAt(state: SideState, at: number): Checkpoint | undefined {
  const found = Object.entries(pegsOf(onOf(state))).find(([, frame]) => frame === at)?.[0];
  return found && found in CHECKPOINT_WORDS ? (found as Checkpoint) : undefined;
}
