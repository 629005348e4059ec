import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Schemas } from "../api/client";
import { catalogueQuery, historyQuery } from "../api/queries";
import { warmFrames } from "../frames/clipFrames";
import { sourceOf } from "../frames/source";
import { onTaken } from "../outbox";
import type { BenchSwing, Side } from "./benchState";
import type { Bench } from "./benchStore";
import { onOtherTabs, unsentOn } from "./edits";

/** Puts swings on the bench's stages and keeps them as the server, the outbox and other tabs have them. */
export function useKept(
  bench: Bench,
  id: string,
  swing: BenchSwing | undefined,
  reference: { id: string; swing?: BenchSwing },
): void {
  const catalogue = useQuery(catalogueQuery).data;
  useEffect(() => {
    if (!catalogue) return;
    const kinds = Object.fromEntries(catalogue.readings.map((kind) => [kind.reading, kind]));
    bench.getState().set({ wanted: catalogue.marks, kinds });
  }, [bench, catalogue]);

  useEffect(() => {
    if (!swing || !catalogue) return;
    const side = swing.student ? "student" : "reference";
    const { sides, open, refresh, set } = bench.getState();
    if (sides[side]) refresh(side, swing);
    else {
      open(side, swing, false);
      warm(bench, side);
      if (!bench.getState().sides[bench.getState().active]) set({ active: side });
    }
  }, [bench, swing, catalogue]);

  const { id: besideId, swing: beside } = reference;
  useEffect(() => {
    if (!swing?.student || !catalogue) return;
    const { sides, open, close, refresh } = bench.getState();
    if (besideId === "" && sides.reference) close("reference");
    if (!beside || beside.id !== besideId) return;
    if (sides.reference?.swing.id === beside.id) refresh("reference", beside);
    else {
      open("reference", beside, beside.hand !== swing.hand);
      warm(bench, "reference");
    }
  }, [bench, besideId, beside, swing, catalogue]);

  const earlier = useQuery(historyQuery(id)).data;
  useEffect(() => {
    if (!earlier || !swing) return;
    const side = swing.student ? "student" : "reference";
    bench.getState().recallDone(earlier.map((each) => ({ ...each, side, clipId: each.clip_id })));
  }, [bench, earlier, swing]);

  const queries = useQueryClient();
  useEffect(
    () => onOtherTabs((changed) => void queries.invalidateQueries({ queryKey: ["swing", changed] })),
    [queries],
  );
  useEffect(() => {
    /** Fetch a stage anew that somebody else has changed; with marks unsent the answer would miss them. */
    const catchUp = () => {
      for (const side of Object.values(bench.getState().sides))
        if (side.behind && side.swing.clips.every((clip) => unsentOn(clip.id).length === 0))
          void queries.invalidateQueries({ queryKey: ["swing", side.swing.id] });
    };
    const stopHearing = onTaken((_, posts, answer) => {
      const [first] = posts;
      if (first?.kind !== "edit") return;
      bench.getState().taken(first.clipId, answer as Schemas["EditAnswer"], posts.length);
      catchUp();
    });
    const stopWatching = bench.subscribe(({ sides }, before) => {
      if (
        (["student", "reference"] as const).some((side) => sides[side]?.behind && !before.sides[side]?.behind)
      )
        catchUp();
    });
    return () => {
      stopHearing();
      stopWatching();
      // Whoever comes back finds what was done here meanwhile.
      for (const { swing } of Object.values(bench.getState().sides))
        for (const kept of ["swing", "history"])
          void queries.invalidateQueries({ queryKey: [kept, swing.id], refetchType: "all" });
    };
  }, [bench, queries]);
}

/** The picture is on its way before the bench is drawn. */
function warm(bench: Bench, side: Side): void {
  const { sides, stands } = bench.getState();
  const clip = sides[side]?.clip;
  if (clip) warmFrames(sourceOf(clip), stands[side].frame);
}
