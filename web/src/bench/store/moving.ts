import { clipLike } from "../../sides";
import {
  type BenchState,
  frameOf,
  inWindow,
  OTHER,
  onOf,
  otherViews,
  paired,
  timelineOf,
} from "../benchState";
import { linkedFrame } from "../rule/pegLink";
import { RATES } from "../rule/rates";
import { type Get, movedTo, type Put } from "./slice";

type Moving = Pick<BenchState, "goTo" | "step" | "toPeg" | "play" | "pace" | "show" | "turnView">;

/** Going through a swing: by frame, by peg, by itself, and round to its other side. */
export function moving(set: Put, get: Get): Moving {
  return {
    goTo: (side, wanted) =>
      set(({ sides, stands, linked }) => {
        const now = sides[side];
        if (!now) return {};
        const frame = inWindow(Math.round(wanted), now);
        const moved = movedTo(stands, side, frame);
        const other = sides[OTHER[side]];
        if (!linked || !other) return { stands: moved };
        const follow = inWindow(linkedFrame(frame, timelineOf(now), timelineOf(other)), other);
        return { stands: movedTo(moved, OTHER[side], follow) };
      }),

    step: (frames) => {
      set({ playing: null });
      get().goTo(get().active, frameOf(get()) + frames);
    },

    toPeg: (way) => {
      const { active, sides, goTo } = get();
      const now = sides[active];
      if (!now) return false;
      const from = frameOf(get());
      const frames = onOf(now)
        .pegs.map((peg) => peg.frame)
        .sort((a, b) => (a - b) * way);
      const next = frames.find((frame) => (frame - from) * way > 0);
      if (next === undefined) return false;
      goTo(active, next);
      return true;
    },

    play: () => {
      const { playing, rate, active, sides, looping, goTo } = get();
      const now = sides[active];
      if (!now) return;
      // From the end it starts over.
      const { first, last } = now.clip.window;
      if (playing === null && !looping && frameOf(get()) === last) goTo(active, first);
      set({ playing: playing === null ? rate : null });
    },

    pace: (way) => {
      const { rate, playing } = get();
      const next = RATES[Math.min(Math.max(RATES.indexOf(rate) - way, 0), RATES.length - 1)] ?? rate;
      set({ rate: next, playing: playing === null ? null : next });
    },

    show: (side, clipId) => {
      const now = get().sides[side];
      const clip = now?.swing.clips.find((each) => each.id === clipId && each.state === "ready");
      if (!now || !clip || clip.id === now.clip.id) return;
      const other = get().sides[OTHER[side]];
      if (other?.clip.id === clip.id && paired(get())) {
        // Both views are seen already: they change places.
        set(({ sides, stands }) => ({
          sides: { ...sides, [side]: { ...now, clip }, [OTHER[side]]: { ...other, clip: now.clip } },
          stands: { ...stands, [side]: stands[OTHER[side]], [OTHER[side]]: stands[side] },
          tool: null,
          selected: null,
        }));
        return;
      }
      const next = { ...now, clip };
      // To and fro ends where it began, whatever was pegged or proposed meanwhile.
      const from = get().stands[side].frame;
      const before = now.turnedFrom;
      const back = before?.clipId === clip.id && before.to === from;
      const linked = linkedFrame(from, timelineOf(now), timelineOf(next));
      const frame = inWindow(back ? before.frame : linked, next);
      const turnedFrom = { clipId: now.clip.id, frame: from, to: frame };
      set(({ sides, stands }) => ({
        sides: { ...sides, [side]: { ...next, turnedFrom } },
        stands: movedTo(stands, side, frame),
        tool: null,
        selected: null,
      }));
    },

    turnView: () => {
      const { sides, active, show } = get();
      const now = sides[active];
      const next = now && otherViews(now)[0];
      if (!next) return false;
      if (paired(get())) {
        show(active, next.id);
        return true;
      }
      for (const side of ["student", "reference"] as const) {
        const ready = sides[side]?.swing.clips.filter((clip) => clip.state === "ready") ?? [];
        const seen = clipLike(ready, next.view);
        if (seen) show(side, seen.id);
      }
      return true;
    },
  };
}
