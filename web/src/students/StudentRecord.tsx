import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { useParams } from "react-router";
import { api, got } from "../api/client";
import { waitingQuery } from "../api/queries";
import { NoAnswer } from "../inbox/WaitingStudents";
import { onTaken, outbox, useOutbox } from "../outbox";
import { threadLane } from "../outbox/posts";
import { PracticeLog } from "../page/PracticeLog";
import { KeepInMind } from "../parts/KeepInMind";
import { Page } from "../parts/Page";
import { Trouble } from "../parts/Trouble";
import { day } from "../parts/when";
import { placesWords } from "../talk/felt";
import { SayIt } from "../talk/SayIt";
import { Thread, type ThreadMessage } from "../talk/Thread";
import { PageLink } from "./PageLink";

/** One student: what was said, what was practised and where it was felt, and their own page. */
export function StudentRecord() {
  const { id = "" } = useParams();
  const thread = useThread(id);
  if (thread.error && !thread.data) return <Trouble error={thread.error} retry={thread.refetch} />;
  if (!thread.data) return <p className="p-6">Fetching the student…</p>;
  const { student, practised, page } = thread.data;
  const waits =
    thread.messages.some(({ side, settled_at, waits }) => side === "student" && !settled_at && !waits) &&
    !thread.messages.some(({ waits }) => waits);
  return (
    <Page title={student.name} actions={waits ? <NoAnswer student={student} /> : undefined}>
      <KeepInMind hurts="" history={student.history} />
      <div className="mt-3 grid gap-6 lg:grid-cols-[1fr_340px]">
        <section className="min-w-0" aria-label="Thread">
          {thread.messages.length === 0 && (
            <p className="plate border-dashed p-4">
              Nothing was said yet. {student.name} asks from the lesson sheet or their own page.
            </p>
          )}
          <Thread
            messages={thread.messages}
            own="instructor"
            other={student.name}
            voice={(message) => `/api/students/${id}/messages/${message}/voice.m4a`}
          />
          <div className="mt-4">
            <SayIt name={`student.${id}`} label={`To ${student.name}`} button="Say it" say={thread.say} />
          </div>
        </section>
        <aside className="grid content-start gap-4">
          <section className="plate p-4">
            <h2 className="mb-2 font-semibold">Practice</h2>
            <PracticeLog practised={practised} />
            <Felt practised={practised} hand={student.hand} />
          </section>
          <PageLink student={student} page={page} />
        </aside>
      </div>
    </Page>
  );
}

function Felt(props: {
  practised: NonNullable<ReturnType<typeof useThread>["data"]>["practised"];
  hand: "left" | "right";
}) {
  const told = props.practised.filter(({ places, words }) => places.length || words).slice(0, 12);
  if (!told.length) return null;
  return (
    <ul className="mt-3 grid gap-2 text-sm">
      {told.map((tick) => (
        <li key={tick.id} className="border-t border-base-content/20 pt-1.5">
          {day(tick.day)}, {tick.name}
          {tick.places.length > 0 && (
            <span className={`block ${tick.speaks_up ? "font-semibold" : ""}`}>
              Felt in: {placesWords(tick.places, props.hand)}
            </span>
          )}
          {tick.words && <q className="block break-words">{tick.words}</q>}
        </li>
      ))}
    </ul>
  );
}

/** The thread with what is still on its way, and how to add to it. */
function useThread(id: string) {
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
