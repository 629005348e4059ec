import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, type Schemas } from "../../api/client";
import { keep } from "../../parts/keep";
import { VIEW_WORDS } from "../../words";
import type { Side, SideState } from "../benchState";

const SURE = 0.5;
const CLOSE = 0.1; // a rate that differs by less is the same

type Change = Schemas["ClipChange"];

interface Doubt {
  id: string;
  says: string;
  offers: string;
  change: Change;
}

/** What a clip seems to show otherwise than was said: one click to change, one to keep. */
export function Doubts({ side, state }: { side: Side; state: SideState }) {
  const { clip } = state;
  const queries = useQueryClient();
  const [kept, setKept] = useState(() => localStorage.getItem(keptKey(clip.id)) ?? "");
  const change = useMutation({
    mutationFn: (body: Change) =>
      got(api.PUT("/api/clips/{id}/about", { params: { path: { id: clip.id } }, body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["swing"] }),
  });
  const open = doubtsOf(state).filter((doubt) => !kept.split(" ").includes(doubt.id));
  const doubt = open[0];
  if (!doubt) return null;
  const keepIt = () => {
    const all = `${kept} ${doubt.id}`.trim();
    keep(localStorage, keptKey(clip.id), all);
    setKept(all);
  };
  return (
    <div
      className="absolute inset-x-1 top-1 flex items-center gap-2 rounded-sm border border-dashed border-brass bg-dusk/90 px-2 py-1 text-sm"
      data-doubts={side}
      onPointerDown={(event) => event.stopPropagation()}
    >
      <p className="min-w-0 flex-1">{change.error?.message ?? doubt.says}</p>
      <button
        type="button"
        className="btn btn-xs btn-primary"
        disabled={change.isPending}
        onClick={() => change.mutate(doubt.change)}
      >
        {doubt.offers}
      </button>
      <button type="button" className="btn btn-xs" onClick={keepIt}>
        Keep
      </button>
    </div>
  );
}

const keptKey = (clipId: string) => `tropometer.kept.${clipId}`;

function doubtsOf({ clip, swing }: SideState): Doubt[] {
  const { view, hand, capture_fps } = clip.proposals;
  const said: Change = { view: clip.view, capture_fps: clip.capture_fps, flipped: clip.flipped };
  const doubts: Doubt[] = [];
  if (view && view.value !== clip.view && view.confidence >= SURE)
    doubts.push({
      id: `view-${clip.view}`,
      says: `This clip looks ${VIEW_WORDS[view.value].toLowerCase()}.`,
      offers: "Change",
      change: { ...said, view: view.value },
    });
  const now = clip.capture_fps ?? clip.played_fps;
  if (capture_fps && Math.abs(capture_fps / now - 1) > CLOSE && clip.capture_from !== "file")
    doubts.push({
      id: `rate-${clip.capture_fps}`,
      says: `It moves as if shot at ${Math.round(capture_fps)}/s, not ${Math.round(now)}/s.`,
      offers: `Use ${Math.round(capture_fps)}`,
      change: { ...said, capture_fps: capture_fps === clip.played_fps ? null : capture_fps },
    });
  if (hand && hand.value !== swing.hand && hand.confidence >= SURE && view?.value === clip.view)
    doubts.push({
      id: `hand-${clip.flipped}`,
      says: `The player looks ${hand.value}-handed. Was it filmed in a mirror?`,
      offers: "Turn it round",
      change: { ...said, flipped: !clip.flipped },
    });
  return doubts;
}
