import { useEffect, useRef } from "react";
import uPlot from "uplot";
import "uplot/dist/uPlot.min.css";
import type { Side } from "../benchState";
import { PAPER_INK } from "../ink";
import type { TapeScale } from "../readings/tapeScale";
import type { LaidCurve } from "./curveData";

const SIDES = ["reference", "student"] as const; // the student's lies on top
const RIBBON = "38"; // how dense an uncertainty is, as two digits of a colour
const BRIDGE = "80";
// Where both swings are laid on one rule, an unmarked frame of one stays a gap between frames of the other.
const GAP_WIDENS = 2;

type Curves = Partial<Record<Side, LaidCurve>>;

interface Props {
  curves: Curves;
  scale: TapeScale;
  width: number;
  height: number;
}

/** The curves themselves with their uncertainty as a ribbon; a thin dashed line crosses what is not marked. */
export function CurveChart({ curves, scale, width, height }: Props) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!box.current || width === 0) return;
    const drawn = SIDES.flatMap((side) => (curves[side] ? [{ side, curve: curves[side] }] : []));
    const share = (value: number | null) => (value === null ? null : scale.at(value));
    const tables: uPlot.AlignedData[] = drawn.map(({ curve }) => [
      curve.x,
      curve.y.map(share),
      curve.low.map(share),
      curve.high.map(share),
      curve.y.map(share),
    ]);
    const series: uPlot.Series[] = [{}];
    const bands: uPlot.Band[] = [];
    for (const { side } of drawn) {
      const first = series.length;
      const hidden: uPlot.Series = { stroke: "transparent", width: 0, points: { show: false } };
      series.push({ stroke: PAPER_INK[side], width: 2, points: { show: false } }, hidden, hidden, {
        stroke: `${PAPER_INK[side]}${BRIDGE}`,
        width: 1,
        dash: [2, 4],
        spanGaps: true,
        points: { show: false },
      });
      bands.push({ series: [first + 2, first + 1], fill: `${PAPER_INK[side]}${RIBBON}` });
    }
    const chart = new uPlot(
      {
        width,
        height,
        padding: [0, 0, 0, 0],
        legend: { show: false },
        cursor: { show: false },
        axes: [{ show: false }, { show: false }],
        scales: { x: { time: false, range: [0, width] }, y: { range: [0, 1] } },
        series,
        bands,
      },
      tables.length > 1
        ? uPlot.join(
            tables,
            tables.map((table) => table.map(() => GAP_WIDENS)),
          )
        : (tables[0] ?? [[]]),
      box.current,
    );
    return () => chart.destroy();
  }, [curves, scale, width, height]);
  return <div ref={box} className="pointer-events-none absolute inset-0" aria-hidden="true" />;
}
