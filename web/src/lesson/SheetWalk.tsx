import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense } from "react";
import type { Schemas } from "../api/client";
import type { Units } from "../units";
import { minutes } from "../walk/words";
import type { Hand } from "../words";

const WalkPlayer = lazy(async () => ({
  default: (await import("../walk/player/WalkPlayer")).WalkPlayer,
}));

/** The walk on a student's sheet. Its player comes after the words, and before anybody has pressed it. */
export function SheetWalk(props: { walk: Schemas["SheetWalk"]; base: string; units: Units; hand: Hand }) {
  const { walk, base, units, hand } = props;
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
  const waits = (
    <p className="mb-4 rounded bg-pine p-4 text-paper" role="status">
      Walk through your swing · {minutes(walk.length_ms)}
      {!walk.ready && ". It is being made ready; look again in a minute."}
    </p>
  );
  if (played.error)
    return (
      <p role="alert" className="mb-4">
        {played.error.message}
      </p>
    );
  if (!played.data) return waits;
  return (
    <div className="mb-5" data-no-print>
      <Suspense fallback={waits}>
        <WalkPlayer walk={played.data} base={base} units={units} hand={hand} />
      </Suspense>
      {walk.film && (
        <a className="link mt-1 inline-block text-sm" href={`${base}/film.mp4`} download>
          Save it as a film
        </a>
      )}
    </div>
  );
}
