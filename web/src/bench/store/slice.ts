import type { BenchState, Side, SideState } from "../benchState";

export type Get = () => BenchState;
export type Put = (
  change: Partial<BenchState> | ((state: BenchState) => Partial<BenchState> | BenchState),
) => void;

/** A change of one stage. */
export function patch(set: Put, side: Side, change: Partial<SideState>): void {
  set(({ sides }) => {
    const now = sides[side];
    return now ? { sides: { ...sides, [side]: { ...now, ...change } } } : {};
  });
}
