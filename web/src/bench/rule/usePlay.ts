import { useEffect } from "react";
import { frameOf, onOf, type SideState } from "../benchState";
import type { Bench } from "../benchStore";
import { nearestFrame } from "./pegLink";

/** The stretch that is looped: from the peg at or before a frame to the next one. */
export function loopAbout(side: SideState, at: number): [number, number] {
  const frames = onOf(side)
    .pegs.map((peg) => peg.frame)
    .sort((a, b) => a - b);
  const first = frames.findLast((frame) => frame <= at) ?? side.clip.window.first;
  const last = frames.find((frame) => frame > at) ?? side.clip.window.last;
  return [first, last];
}

/** Moves the active stage in real time times `playing`, for as long as that is set. */
export function usePlay(bench: Bench, playing: number | null): void {
  useEffect(() => {
    if (playing === null) return;
    const start = bench.getState();
    const from = start.sides[start.active];
    if (!from) return;
    let shown = frameOf(start);
    const loop = start.looping ? loopAbout(from, shown) : null;
    let time = from.clip.frame_times_s[shown] ?? 0;
    let before = performance.now();
    let request = 0;
    const tick = (now: number) => {
      const { sides, stands, active, goTo, set } = bench.getState();
      const side = sides[active];
      const { frame } = stands[active];
      if (!side) return;
      const times = side.clip.frame_times_s;
      if (frame !== shown) time = times[frame] ?? 0; // somebody stepped meanwhile
      time += ((now - before) / 1000) * playing;
      before = now;
      const first = times[loop ? loop[0] : side.clip.window.first] ?? 0;
      const last = times[loop ? loop[1] : side.clip.window.last] ?? 0;
      const over = time > last || time < first;
      if (over && loop) time = playing > 0 ? first : last;
      shown = nearestFrame(times, Math.min(Math.max(time, first), last));
      goTo(active, shown);
      if (over && !loop) set({ playing: null });
      else request = requestAnimationFrame(tick);
    };
    request = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(request);
  }, [bench, playing]);
}
