import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { firstLookQuery } from "../../api/queries";
import { useBench } from "../benchContext";
import { measuredClips, type Side } from "../benchState";
import { readingsOf } from "./columns";
import type { Reading } from "./reading";
import { useRested } from "./useRested";

const RESTED_MS = 250; // a drag is answered every 60 ms

export interface FirstLook {
  readings: Reading[]; // only what nothing that somebody looked at gives
  next: Schemas["NextOut"][]; // what is worth looking at, most first
}

/** What a machine reads of a stage's swing where nobody has looked yet, and what to look at next. */
export function useFirstLook(side: Side): FirstLook | null {
  const state = useBench((bench) => bench.sides[side]);
  const kinds = useBench((bench) => bench.kinds);
  const swing = state?.swing;
  const seen = swing?.clips.some((clip) => clip.proposals.is_swing && !clip.looking) ?? false;
  const closely = swing?.clips.map((clip) => String(clip.closer === null)).join() ?? "";
  const on = useRested(`${state?.state} ${closely}`, RESTED_MS);
  const query = useQuery({
    ...firstLookQuery(swing?.id ?? "", on),
    enabled: seen,
  });
  const found = seen ? query.data : undefined;
  return useMemo(
    () =>
      found && swing
        ? { readings: readingsOf(found.readings, measuredClips(swing), kinds), next: found.next }
        : null,
    [found, swing, kinds],
  );
}

/** Readings with provisional ones in the place of those that are refused. */
export function withFirstLook(readings: Reading[], first: FirstLook | null): Reading[] {
  if (!first?.readings.length) return readings;
  const keyOf = ({ reading, at }: Reading) => `${reading} ${at}`;
  const seen = new Map(first.readings.map((each) => [keyOf(each), { ...each, provisional: true }]));
  const held = new Set(readings.map(keyOf));
  const filled = readings.map((each) => (each.status === "refused" ? (seen.get(keyOf(each)) ?? each) : each));
  return [...filled, ...[...seen].flatMap(([key, each]) => (held.has(key) ? [] : [each]))];
}
