import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { tracksQuery } from "../../api/queries";
import { markAt, onOf, type SideState } from "../benchState";

export type Track = Schemas["TrackOut"];
export interface TrackedMark {
  name: string;
  frame: number;
  x: number;
  y: number;
  sd_px: number;
}

/** A followed mark on a frame, if the flow held there. */
export function trackedAt(track: Track, frame: number): TrackedMark | undefined {
  const i = frame - track.first;
  const [x, y, sd_px] = [track.x[i], track.y[i], track.sd_px[i]];
  return x == null || y == null ? undefined : { name: track.name, frame, x, y, sd_px: sd_px ?? 0 };
}

/** A clip's followed marks, fetched anew after every edit and while a worker follows. */
export function useTracks(state: SideState): { stale: boolean; tracks: Track[] } {
  const found = useQuery(tracksQuery(state.clip.id, onOf(state).version));
  return found.data ?? { stale: false, tracks: [] };
}

/** The followed marks of a frame that nobody has placed there. */
export function useTrackedMarks(state: SideState, tracks: Track[], frame: number): TrackedMark[] {
  return useMemo(
    () =>
      tracks
        .filter((track) => !markAt(state, track.name, frame))
        .flatMap((track) => trackedAt(track, frame) ?? []),
    [state, tracks, frame],
  );
}

const BRIDGED_S = 0.05; // shorter gaps are bridged
const TOGETHER_FRAMES = 4; // gaps so near to each other are asked for as one

/** First and last frame of each stretch in which a track stopped for so long that it must be marked. */
export function gapsOf(track: Track, times: number[]): [number, number][] {
  const gaps: [number, number][] = [];
  track.x.forEach((x, i) => {
    if (x !== null) return;
    const last = gaps.at(-1);
    if (last && track.first + i - last[1] <= TOGETHER_FRAMES) last[1] = track.first + i;
    else gaps.push([track.first + i, track.first + i]);
  });
  return gaps.filter(([a, b]) => (times[b + 1] ?? 0) - (times[a - 1] ?? 0) > BRIDGED_S + 1e-6);
}
