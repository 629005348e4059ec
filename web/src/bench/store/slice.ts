import type { BenchState, Side, SideState, Stand } from "../benchState";

export type Get = () => BenchState;
export type Put = (
  change: Partial<BenchState> | ((state: BenchState) => Partial<BenchState> | BenchState),
) => void;

/** Where both stages stand, one of them moved to a frame. */
export function movedTo(stands: Record<Side, Stand>, side: Side, frame: number): Record<Side, Stand> {
  return { ...stands, [side]: { frame, direction: frame < stands[side].frame ? -1 : 1 } };
}

/** A change of one stage. */
export function patch(set: Put, side: Side, change: Partial<SideState>): void {
  set(({ sides }) => {
    const now = sides[side];
    return now ? { sides: { ...sides, [side]: { ...now, ...change } } } : {};
  });
}
