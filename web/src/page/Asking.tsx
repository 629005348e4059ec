import { useEffect } from "react";
import { api } from "../api/client";
import { SayIt } from "../talk/SayIt";
import { Thread } from "../talk/Thread";
import { ask, type Message } from "./usePage";

/** What was asked and answered, and the next question. */
export function Asking(props: {
  token: string;
  instructor: string;
  messages: Message[];
  lessonId?: string | null;
}) {
  const { token, instructor, messages, lessonId = null } = props;
  const newest = messages.findLast(({ side, seen_at }) => side === "instructor" && seen_at === null)?.said_at;
  useEffect(() => {
    if (newest)
      void api
        .PUT("/api/pages/{token}/seen", { params: { path: { token } }, body: { until: newest } })
        .catch(() => undefined); // the next opening says it again
  }, [token, newest]);
  return (
    <section className="mt-8" data-no-print>
      <h2 className="mb-2 text-lg font-bold">Ask a question</h2>
      <Thread
        messages={messages}
        own="student"
        other={instructor}
        voice={(id) => `/api/pages/${token}/messages/${id}/voice.m4a`}
      />
      <div className="mt-3">
        <SayIt
          name={`page.${token}`}
          label={`To ${instructor}`}
          button="Ask"
          say={(words) => ask(token, { words, lesson_id: lessonId, voice: "" })}
          speak={(voice) => ask(token, { words: "", lesson_id: lessonId, voice })}
        />
      </div>
    </section>
  );
}
