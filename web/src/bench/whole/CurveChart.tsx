import { area, line } from "d3-shape";
import { PAPER_INK } from "../../drawn/ink";
import type { Side } from "../benchState";
import type { LaidCurve } from "./curveData";

const SIDES = ["reference", "student"] as const; // the student's lies on top

interface Props {
  curves: Partial<Record<Side, LaidCurve>>;
  y: (core: number) => number;
}

interface Instant {
  x: number;
  value: number | null;
  low: number | null;
  high: number | null;
}

/** The curves themselves with their uncertainty as a ribbon; a thin dotted line crosses what is not marked. */
export function CurveChart({ curves, y }: Props) {
  const ribbon = area<Instant>()
    .defined(({ low, high }) => low !== null && high !== null)
    .x(({ x }) => x)
    .y0(({ low }) => y(low ?? 0))
    .y1(({ high }) => y(high ?? 0));
  const stroke = line<Instant>()
    .defined(({ value }) => value !== null)
    .x(({ x }) => x)
    .y(({ value }) => y(value ?? 0));
  return SIDES.map((side) => {
    const curve = curves[side];
    if (!curve) return null;
    const instants = curve.x.map((x, i) => ({
      x,
      value: curve.y[i] ?? null,
      low: curve.low[i] ?? null,
      high: curve.high[i] ?? null,
    }));
    const ink = PAPER_INK[side];
    return (
      <g key={side} fill="none" stroke={ink}>
        <path d={ribbon(instants) ?? ""} fill={ink} fillOpacity={0.22} stroke="none" />
        <path
          d={stroke(instants.filter(({ value }) => value !== null)) ?? ""}
          strokeOpacity={0.5}
          strokeDasharray="2 4"
        />
        <path d={stroke(instants) ?? ""} strokeWidth={2} />
      </g>
    );
  });
}
