import type { Scene, StageShown } from "../../walk/score";
import { type BenchState, OTHER, type Side } from "../benchState";
import type { seenNow } from "./seen";

const round = (value: number) => Math.round(value * 10) / 10;

/** What stands on the bench now, as a walk keeps it. */
export function benchScene(
  bench: BenchState,
  { showings, pointer, curve }: ReturnType<typeof seenNow>,
): Scene {
  const stages: Scene["stages"] = {};
  for (const side of ["student", "reference"] as const) {
    const shown = stageShown(bench, side, showings[side]);
    if (shown) stages[side] = shown;
  }
  const reading = curve ?? bench.curve;
  return {
    stages,
    solo: bench.solo ? (bench.sides[bench.active] ? bench.active : OTHER[bench.active]) : null,
    gauges: gaugesShown(bench),
    drawer: bench.station === "read" && bench.drawer ? { part: bench.drawer, reading } : null,
    tape: bench.station === "read" && bench.focus ? { ...bench.focus } : null,
    rate: bench.playing,
    pointer: pointer && { side: pointer.side, x: round(pointer.x), y: round(pointer.y) },
    chalk: bench.chalk,
  };
}

function stageShown(
  bench: BenchState,
  side: Side,
  showing: ReturnType<typeof seenNow>["showings"][Side],
): StageShown | null {
  const state = bench.sides[side];
  if (!state) return null;
  const { width, height } = state.clip;
  const whole = { cx: width / 2, cy: height / 2, high: height, wide: width, mirrored: state.mirrored };
  return { clip: state.clip.id, frame: bench.stands[side].frame, showing: showing ?? whole };
}

/** The gauges that are pinned, and those of the reading that is looked into, on either stage. */
function gaugesShown({ pinned, focus, sides }: BenchState): string[] {
  const looked = Object.values(sides).flatMap((side) =>
    (side?.views[side.clip.id]?.gauges ?? [])
      .filter((gauge) => focus && gauge.shapes.some(({ reading }) => reading === focus.reading))
      .map(({ id }) => id),
  );
  return [...new Set([...pinned, ...looked])].sort();
}
