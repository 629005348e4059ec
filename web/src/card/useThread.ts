import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, got } from "../api/client";
import { waitingQuery } from "../api/queries";
import { onTaken, outbox, useOutbox } from "../outbox";
import { threadLane } from "../outbox/posts";
import type { ThreadMessage } from "../talk/Thread";

/** The thread with what is still on its way, and how to add to it. */
export function useThread(id: string) {
  const queries = useQueryClient();
  const lane = threadLane(id);
  const thread = useQuery({
    queryKey: ["thread", id],
    queryFn: () => got(api.GET("/api/students/{id}/thread", { params: { path: { id } } })),
  });
  useOutbox();
  useEffect(
    () =>
      onTaken((taken) => {
        if (taken !== threadLane(id)) return;
        void queries.invalidateQueries({ queryKey: ["thread", id] });
        void queries.invalidateQueries({ queryKey: waitingQuery.queryKey });
      }),
    [queries, id],
  );
  const newest = thread.data?.messages.findLast(
    ({ side, seen_at }) => side === "student" && !seen_at,
  )?.said_at;
  useEffect(() => {
    if (newest)
      void api
        .PUT("/api/students/{id}/thread/seen", { params: { path: { id } }, body: { until: newest } })
        .catch(() => undefined); // the next opening says it again
  }, [id, newest]);
  const messages: ThreadMessage[] = [...(thread.data?.messages ?? [])];
  for (const { post } of outbox().unsent(lane))
    if (post.kind === "answer" && !messages.some((each) => each.id === post.message.id))
      messages.push({
        id: post.message.id,
        side: "instructor",
        words: post.message.words,
        voice_ms: 0,
        said_at: new Date().toISOString(),
        seen_at: null,
        settled_at: null,
        lesson_id: null,
        waits: true,
      });
  return {
    ...thread,
    messages,
    say: (words: string) => {
      const message = crypto.randomUUID();
      const post = { kind: "answer" as const, studentId: id, message: { id: message, words } };
      outbox().add({ id: message, lane, subject: `answer ${message}`, what: "your answer", post });
    },
  };
}
