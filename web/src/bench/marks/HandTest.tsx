import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { api, got } from "../../api/client";
import { meQuery } from "../../api/queries";
import type { Point } from "../../drawn/stageView";
import { MARK_WORDS } from "../../words";
import { useBench } from "../benchContext";
import type { Side, SideState } from "../benchState";
import { unitPx } from "./hand";
import { isHidden } from "./round";

const PLACES = 10;
const TESTED = {
  face_on: ["lead_knee", "trail_toe", "lead_hip_edge", "lead_ankle", "trail_knee"],
  from_behind: ["lead_heel", "trail_ankle", "lead_hip_edge", "trail_heel", "lead_ankle"],
  down_the_line: ["trail_knee", "trail_toe", "seat", "trail_ankle", "neck"],
  up_the_line: ["lead_knee", "lead_toe", "seat", "lead_ankle", "neck"],
} as const;

interface Place {
  frame: number;
  name: string;
}

export interface HandTestState {
  asks: Place | null;
  number: number;
  said: string;
  click: (at: Point, frame: number) => boolean;
  stop: () => void;
}

/** Ten places, then the same ten in another order: how far the second click falls from the first. */
export function useHandTest(side: Side, state: SideState): HandTestState {
  const on = useBench((bench) => bench.handTest && bench.active === side);
  const set = useBench((bench) => bench.set);
  const goTo = useBench((bench) => bench.goTo);
  const queries = useQueryClient();
  const [clicks, setClicks] = useState<Point[]>([]);
  const { clip } = state;
  const places = useMemo(() => {
    const { first, last } = clip.window;
    const names = TESTED[clip.view];
    const round = Array.from({ length: PLACES }, (_, i) => ({
      frame: Math.round(first + ((i + 0.5) / PLACES) * 0.6 * (last - first)),
      name: names[i % names.length] ?? names[0],
    }));
    // The second time from another end, so that the hand does not remember.
    const again = round.map((_, i) => round[(i * 3 + 4) % PLACES] as Place);
    return [...round, ...again];
  }, [clip]);
  const asks = on ? (places[clicks.length] ?? null) : null;
  useEffect(() => {
    if (!on) setClicks([]);
  }, [on]);
  useEffect(() => {
    if (asks) goTo(side, asks.frame);
  }, [asks, goTo, side]);
  const keep = useMutation({
    mutationFn: (marks: { dx: number; dy: number }[]) => got(api.PUT("/api/me/hand", { body: { marks } })),
    onSuccess: (hand) => {
      void queries.invalidateQueries(meQuery);
      const range = `${hand.low.toFixed(1)} to ${hand.high.toFixed(1)}`;
      const slips = hand.slips ? `; ${hand.slips} slipped and left out` : "";
      set({
        handTest: false,
        notice: `Your hand is steady to ±${hand.sd.toFixed(1)} px (${range})${slips}.`,
      });
    },
    onError: (error) => set({ handTest: false, notice: error.message }),
  });
  const click = (at: Point, frame: number) => {
    if (!asks) return false;
    if (frame !== asks.frame) return true; // the asked frame is still on its way to the stage
    const all = [...clicks, at];
    setClicks(all);
    if (all.length === places.length) {
      const unit = unitPx(state);
      const firstOf = ({ frame, name }: Place) =>
        all[places.findIndex((place) => place.frame === frame && place.name === name)] ?? at;
      keep.mutate(
        places.slice(PLACES).map((place, i) => {
          const [one, two] = [firstOf(place), all[PLACES + i] ?? at];
          return { dx: (two.x - one.x) / unit, dy: (two.y - one.y) / unit };
        }),
      );
    }
    return true;
  };
  return {
    asks,
    number: clicks.length + 1,
    said: asks && isHidden(state, asks.name, asks.frame) ? "as well as you can see it" : "",
    click,
    stop: () => set({ handTest: false }),
  };
}

/** What the test asks for. */
export function HandTest({ test }: { test: HandTestState }) {
  return (
    <div
      className="absolute top-2 left-2 flex items-center gap-2 rounded-sm bg-dusk/85 px-2 py-1 text-sm"
      onPointerDown={(event) => event.stopPropagation()}
      role="status"
    >
      Click the {MARK_WORDS[test.asks?.name ?? ""]?.toLowerCase()} {test.said}
      <span className="num">
        {test.number} of {2 * PLACES}
      </span>
      <button type="button" className="btn btn-xs" onClick={test.stop}>
        Stop
      </button>
    </div>
  );
}
