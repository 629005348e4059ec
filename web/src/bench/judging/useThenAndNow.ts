import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../../api/client";
import { swingQuery } from "../../api/queries";
import { outbox } from "../../outbox";
import { pickLane } from "../../outbox/posts";
import type { Units } from "../../units";
import { useBenchStore } from "../benchContext";
import { type BenchSwing, pegsOf } from "../benchState";
import { unpacked } from "../edits";
import { endsWords, type LastFocus, verdictWords } from "./thenAndNow";

interface Shown {
  clip_id: string;
  frame: number;
  gauges: string[];
  view: string;
}

/** Puts the picture pair of a goal into the lesson: as it was when it was set, and now, with what changed. */
export function useThenAndNow(units: Units) {
  const bench = useBenchStore();
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  const put = async (last: LastFocus) => {
    const swing = bench.getState().sides.student?.swing;
    const { goal, change } = last;
    if (!swing || !goal || !change) return;
    setBusy(true);
    try {
      const before = await queries.fetchQuery(swingQuery(last.swing_id));
      const now = await queries.fetchQuery({ ...swingQuery(swing.id), staleTime: 0 });
      const [then, here] = sameSide(
        shownIn(before, goal.reading, goal.at),
        shownIn(now, goal.reading, goal.at),
      );
      if (!then || !here) {
        bench
          .getState()
          .say("One of the two has no clip that shows it from the same side, pegged at that moment.");
        return;
      }
      const words = [endsWords(last, "then", units), verdictWords(last, units)];
      const pair = [then, here].map(({ view: _, ...shown }, i) => ({ ...shown, words: words[i] ?? "" }));
      const there = [...(await inLesson(now)), ...onTheWay(swing.id)];
      if (pair.every((each) => there.some((other) => same(each, other)))) {
        bench.getState().say("Then and now are in the lesson already.");
        return;
      }
      for (const shown of pair) {
        const id = crypto.randomUUID();
        const frame = { id, ...shown, chalk: [] };
        outbox().add({
          id,
          lane: pickLane(swing.id),
          subject: id,
          what: "then and now for the lesson",
          post: { kind: "pick", swingId: swing.id, frame },
        });
      }
      bench.getState().say("Then and now are on their way into the lesson.");
    } catch (trouble) {
      bench.getState().say((trouble as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return { put, busy };
}

interface Put {
  clip_id?: string | null;
  frame: number;
  words: string;
}

const same = (a: Put, b: Put) => a.clip_id === b.clip_id && a.frame === b.frame && a.words === b.words;

/** What a swing's lesson shows already. */
async function inLesson({ lesson }: BenchSwing): Promise<Put[]> {
  if (!lesson) return [];
  return (await got(api.GET("/api/lessons/{id}", { params: { path: { id: lesson } } }))).frames;
}

/** What will be in a swing's lesson once it has arrived. */
const onTheWay = (swingId: string): Put[] =>
  outbox()
    .unsent(pickLane(swingId))
    .flatMap(({ post }) => (post.kind === "pick" ? [post.frame] : []));

/** The frames of a swing at a moment, one a view, those first on which a reading is drawn. */
function shownIn(swing: BenchSwing, reading: string, at: string): Shown[] {
  const found = swing.measured.clips.flatMap((clip) => {
    const view = swing.clips.find(({ id, state }) => id === clip.clip_id && state === "ready")?.view;
    const on = unpacked(clip);
    const frame = pegsOf(on)[at as keyof ReturnType<typeof pegsOf>];
    if (!view || frame === undefined) return [];
    const gauges = on.gauges.filter(({ shapes }) => shapes.some((shape) => shape.reading === reading));
    return [{ clip_id: clip.clip_id, frame, view, gauges: gauges.map(({ id }) => id) }];
  });
  return found.sort((a, b) => b.gauges.length - a.gauges.length);
}

/** The best pair that was filmed from one side. */
function sameSide(then: Shown[], now: Shown[]): [Shown?, Shown?] {
  for (const each of now) {
    const like = then.find(({ view }) => view === each.view);
    if (like) return [like, each];
  }
  return [];
}
