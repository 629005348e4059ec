import { type BenchState, OTHER, paired, type Side, type SideState, type Stand } from "../benchState";

export type Get = () => BenchState;
export type Put = (
  change: Partial<BenchState> | ((state: BenchState) => Partial<BenchState> | BenchState),
) => void;

/** Where both stages stand, one of them moved to a frame. */
export function movedTo(stands: Record<Side, Stand>, side: Side, frame: number): Record<Side, Stand> {
  return { ...stands, [side]: { frame, direction: frame < stands[side].frame ? -1 : 1 } };
}

/** A change of one stage, and of the other where it shows the same swing: all but which clip stands there. */
export function patch(set: Put, side: Side, change: Partial<Omit<SideState, "clip">>): void {
  set(({ sides }) => {
    const now = sides[side];
    if (!now) return {};
    const other = sides[OTHER[side]];
    const both = other && paired({ sides }) ? { [OTHER[side]]: { ...other, ...change } } : {};
    return { sides: { ...sides, ...both, [side]: { ...now, ...change } } };
  });
}
