import type { BenchState, Done, Side } from "../benchState";

/** The last step, and those before it that belong together with it; the last one first. */
export function lastOf(steps: Done[]): Done[] {
  const last = steps.at(-1);
  if (!last?.together) return last ? [last] : [];
  const from = steps.findLastIndex(({ together }) => together !== last.together) + 1;
  return steps.slice(from).reverse();
}

/** The stage on which a clip is seen, else one whose swing it belongs to; none where that swing was put away. */
export function stageOf({ sides }: Pick<BenchState, "sides">, clipId: string): Side | undefined {
  const both = (["student", "reference"] as const).filter((side) =>
    sides[side]?.swing.clips.some((clip) => clip.id === clipId),
  );
  return both.find((side) => sides[side]?.clip.id === clipId) ?? both[0];
}
