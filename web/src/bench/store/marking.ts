import { type BenchState, frameOf } from "../benchState";
import { nextPlace, openAt, type Plan, placeKey, roundOf } from "../marks/round";
import type { Get, Put } from "./slice";

type Marking = Pick<BenchState, "startRound" | "advance" | "skip" | "hide">;

/** The round: which mark is asked for next, and what a hand says of it. */
export function marking(set: Put, get: Get): Marking {
  const plan = (): Plan => ({ wanted: get().wanted, groups: get().groups });

  return {
    startRound: () => {
      set({ round: true, skipped: [], selected: null, playing: null });
      get().advance();
    },

    advance: () => {
      const { active, sides, round, tool, skipped, goTo } = get();
      const frame = frameOf(get());
      const now = sides[active];
      if (!now) return;
      if (!round) {
        set({ tool: openAt(roundOf(now, plan()), frame).find((name) => name !== tool) ?? null });
        return;
      }
      const next = nextPlace(now, plan(), skipped, tool ? { name: tool, frame } : undefined);
      if (!next) {
        set({ round: false, tool: null });
        return;
      }
      const group = get().wanted.find(
        (mark) =>
          mark.name === next.name &&
          mark.view === now.clip.view &&
          mark.at.includes(next.at) &&
          plan().groups.includes(mark.group),
      );
      set({ tool: next.name, selected: null, group: group?.group ?? get().group });
      if (next.frame !== frame) goTo(active, next.frame);
    },

    skip: () => {
      const { tool, advance } = get();
      if (!tool) return;
      const place = placeKey({ name: tool, frame: frameOf(get()) });
      set(({ skipped }) => ({ skipped: [...skipped, place] }));
      advance();
    },

    hide: () => {
      const { active, tool, selected, edit, advance } = get();
      const name = tool ?? selected;
      if (!name || !get().wanted.some((mark) => mark.name === name)) return;
      edit(active, { kind: "hidden", name, frame: frameOf(get()), hidden: true });
      set({ selected: null });
      if (tool) advance();
    },
  };
}
