import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef } from "react";
import { useBench } from "../benchContext";
import { onOf, type SideState } from "../benchState";
import type { ShownMark } from "../marks/MarkLayer";
import { useProposedMarks } from "../marks/ProposedMarks";
import { marksOf } from "../marks/round";
import { useTrackedMarks, useTracks } from "../marks/tracks";

/** Once a worker has carried a hand's marks on, the machine sees the swing better. */
function useLookAgain(swingId: string, following: boolean): void {
  const queries = useQueryClient();
  const before = useRef(following);
  useEffect(() => {
    if (before.current && !following) void queries.invalidateQueries({ queryKey: ["first-look", swingId] });
    before.current = following;
  }, [queries, swingId, following]);
}

/** What lies on one frame of a stage: marks placed and followed, those a machine proposes, and which belong together. */
export function useFrameMarks(state: SideState, frame: number, marking: boolean) {
  const on = onOf(state);
  const { tracks, stale } = useTracks(state);
  const proposed = useProposedMarks(state, frame, marking, stale);
  useLookAgain(state.swing.id, stale);
  const tracked = useTrackedMarks(state, tracks, frame);
  const marks: ShownMark[] = useMemo(
    () => [
      ...on.marks.filter((mark) => mark.frame === frame),
      ...tracked.map((mark) => ({ ...mark, source: "tracked" as const })),
    ],
    [on.marks, tracked, frame],
  );
  const wanted = useBench((bench) => bench.wanted);
  const groups = useBench((bench) => bench.groups);
  const group = useBench((bench) => bench.group);
  const grouped = useMemo(
    () => new Set(marksOf(state, { wanted, groups }, group).map(({ name }) => name)),
    [state, wanted, groups, group],
  );
  return { marks, proposed, tracks, grouped };
}
