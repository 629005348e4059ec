import { useQuery } from "@tanstack/react-query";
import { Play } from "lucide-react";
import { lazy, Suspense, useEffect, useState } from "react";
import type { Schemas } from "../api/client";
import { clipWorkerUrl } from "../frames/workers";
import { keepOffline } from "../offline/keepOffline";
import type { Units } from "../units";
import { served } from "../walk/player/files";
import { minutes } from "../walk/words";
import type { Hand } from "../words";

const player = () => import("../walk/player/WalkPlayer");
const WalkPlayer = lazy(async () => ({ default: (await player()).WalkPlayer }));

/** The walk on a student's sheet. Its player comes after the words, and before anybody has pressed it. */
export function SheetWalk(props: {
  walk: Schemas["SheetWalk"];
  base: string;
  units: Units;
  hand: Hand;
  offline: boolean; // it is a student's: kept for when there is no connection
}) {
  const { walk, base, units, hand, offline } = props;
  const played = useQuery({
    queryKey: ["sheet-walk", base, walk.length_ms],
    queryFn: async () => {
      const answer = await fetch(`${base}/played`);
      if (!answer.ok) throw new Error(`The walk cannot be fetched (${answer.status}).`);
      return (await answer.json()) as Schemas["PlayedWalk"];
    },
    enabled: walk.ready,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [open, setOpen] = useState(false);
  useEffect(() => {
    if (!played.data || !offline) return;
    const clips = played.data.clips.map(({ id }) => `${base}/clips/${id}.mp4`);
    void keepOffline([...clips, `${base}/voice.m4a?${played.data.made}`, `${base}/played`, clipWorkerUrl]);
  }, [played.data, offline, base]);
  // Here before it is pressed: a press may begin to play, a script that comes later may not.
  useEffect(() => void player().catch(() => undefined), []);
  if (played.error)
    return (
      <p role="alert" className="mb-4">
        {played.error.message}
      </p>
    );
  if (!open || !played.data)
    return (
      <button
        type="button"
        className="mb-4 flex w-full items-stretch overflow-hidden rounded bg-pine text-left text-paper disabled:opacity-80"
        disabled={!played.data}
        onClick={() => setOpen(true)}
        data-no-print
      >
        <span className="grid w-14 place-items-center bg-brass text-dusk">
          <Play size={22} aria-hidden />
        </span>
        <span className="min-w-0 flex-1 px-3 py-2">
          {walk.ready
            ? `Walk through your swing · ${minutes(walk.length_ms)}`
            : "Your walk is being made ready; look again in a minute."}
          <span className="relative mt-2 block h-3" aria-hidden>
            <span className="absolute inset-x-0 top-1.5 h-px bg-paper/50" />
            {walk.chapters.map(({ at, name }) => (
              <span
                key={`${at} ${name}`}
                className="absolute top-0 h-3 w-0.5 bg-brass"
                style={{ left: `${(100 * at) / Math.max(walk.length_ms, 1)}%` }}
              />
            ))}
          </span>
        </span>
      </button>
    );
  return (
    <div className="mb-5" data-no-print>
      <Suspense fallback={<p className="rounded bg-pine p-4 text-paper">Opening the walk …</p>}>
        <WalkPlayer walk={played.data} files={served(base, played.data)} units={units} hand={hand} begin />
      </Suspense>
      {walk.film && (
        <a className="link mt-1 inline-block text-sm" href={`${base}/film.mp4`} download>
          Save it as a film
        </a>
      )}
    </div>
  );
}
