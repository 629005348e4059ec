import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import type { Schemas } from "../api/client";
import { swingQuery } from "../api/queries";
import { onTaken, outbox, useOutbox } from "../outbox";
import { pickLane } from "../outbox/posts";
import { OTHER } from "./benchState";
import type { Bench } from "./benchStore";

const ON_ITS_WAY = "The frame is on its way.";

/** Putting the active stage's frame into the swing's lesson: false where it gets none. */
export function usePick(bench: Bench): { pick: () => boolean; said: string } {
  const queries = useQueryClient();
  const [said, setSaid] = useState("");
  const waits = useOutbox(({ waiting }) => {
    const swing = bench.getState().sides.student?.swing.id;
    return waiting > 0 && swing !== undefined && outbox().unsent(pickLane(swing)).length > 0;
  });
  useEffect(
    () =>
      onTaken((_, posts, answer) => {
        const [first] = posts;
        if (first?.kind !== "pick") return;
        const { frames } = answer as Schemas["LessonOut"];
        const words = `Frame ${first.frame.frame} is in the lesson (${frames.length}).`;
        setSaid(words);
        if (bench.getState().station !== "tell") bench.getState().say(words);
        if (!bench.getState().sides.student?.swing.lesson)
          void queries.invalidateQueries(swingQuery(first.swingId));
      }),
    [bench, queries],
  );
  const pick = useCallback(() => {
    const { sides, stands, active, pinned, chalk, station, say } = bench.getState();
    const side = sides[active] ? active : OTHER[active];
    const from = sides[side];
    const swing = sides.student?.swing;
    if (!from || !swing) return false;
    const id = crypto.randomUUID();
    const at = stands[side].frame;
    const here = chalk.filter((stroke) => stroke.clip === from.clip.id && stroke.frame === at);
    const frame = { id, clip_id: from.clip.id, frame: at, words: "", gauges: pinned, chalk: here };
    const what = `frame ${at} for the lesson`;
    outbox().add({
      id,
      lane: pickLane(swing.id),
      subject: id,
      what,
      post: { kind: "pick", swingId: swing.id, frame },
    });
    if (station !== "tell") say(ON_ITS_WAY);
    return true;
  }, [bench]);
  return { pick, said: waits ? ON_ITS_WAY : said };
}
