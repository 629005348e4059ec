import type { INK } from "../drawn/ink";
import { type BenchState, paired, type Side } from "./benchState";

/** Whose swing stands on a stage: an earlier one of the same student is no reference, nor is its other view. */
export function whose(state: Pick<BenchState, "sides">, side: Side): keyof typeof INK {
  const earlier = side === "reference" && state.sides.reference?.swing.student;
  return paired(state) ? "student" : earlier ? "earlier" : side;
}
