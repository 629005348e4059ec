import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { MessageCircleQuestion } from "lucide-react";
import { Link } from "react-router";
import { api, got, type Schemas } from "../api/client";
import { waitingQuery } from "../api/queries";
import { Trouble } from "../parts/Trouble";
import { when } from "../parts/when";
import { done } from "../shell/undo";
import { placesWords } from "../talk/felt";

type Waiting = Schemas["Waiting"];

/** Students who have asked something, or whose body has spoken up: who waits longest first. */
export function WaitingStudents() {
  const waiting = useQuery(waitingQuery);
  if (waiting.error && !waiting.data) return <Trouble error={waiting.error} retry={waiting.refetch} />;
  if (!waiting.data?.length) return null;
  return (
    <section aria-label="Questions" className="mb-5">
      <h2 className="mb-2 text-lg font-semibold">
        {waiting.data.length === 1 ? "One student waits" : `${waiting.data.length} students wait`} for a word
      </h2>
      <ul className="grid gap-2">
        {waiting.data.map((each) => (
          <Card key={each.student.id} waiting={each} />
        ))}
      </ul>
    </section>
  );
}

function Card({ waiting: { student, since, questions, felt } }: { waiting: Waiting }) {
  return (
    <li className="plate flex flex-wrap items-start gap-x-4 gap-y-2 border-l-4 border-l-brass p-3">
      <MessageCircleQuestion size={20} className="mt-1 shrink-0" aria-hidden />
      <div className="min-w-0 flex-1">
        <h3 className="font-semibold">
          <Link className="hover:underline" to={`/students/${student.id}`}>
            {student.name}
          </Link>{" "}
          <span className="text-sm font-normal">· waits since {when(since)}</span>
        </h3>
        {felt.map((tick) => (
          <p key={tick.id}>
            <strong>Felt in: {placesWords(tick.places, student.hand)}</strong>, {tick.name},{" "}
            {when(tick.ticked_at)}
            {tick.words && `. “${tick.words}”`}
          </p>
        ))}
        {questions.map((question) => (
          <blockquote key={question.id} className="mt-1 border-l-2 border-brass pl-2 break-words">
            {question.words || `Spoken, ${Math.round(question.voice_ms / 1000)} s`}
          </blockquote>
        ))}
      </div>
      <div className="flex gap-2">
        <Link className="btn btn-primary btn-sm" to={`/students/${student.id}`}>
          Answer<span className="sr-only"> {student.name}</span>
        </Link>
        <NoAnswer student={student} />
      </div>
    </li>
  );
}

/** Nothing need be said: it can be taken back like anything else. */
export function NoAnswer({ student }: { student: Schemas["StudentOut"] }) {
  const queries = useQueryClient();
  const path = { id: student.id };
  const anew = () =>
    Promise.all([
      queries.invalidateQueries({ queryKey: waitingQuery.queryKey }),
      queries.invalidateQueries({ queryKey: ["thread", student.id] }),
    ]);
  const settle = useMutation({
    mutationFn: () => got(api.POST("/api/students/{id}/thread/settled", { params: { path } })),
    onSuccess: async (settled) => {
      done(`What ${student.name} asked is put aside.`, async () => {
        await got(api.POST("/api/students/{id}/thread/unsettled", { params: { path }, body: settled }));
        await anew();
      });
      await anew();
    },
  });
  return (
    <button type="button" className="btn btn-sm" disabled={settle.isPending} onClick={() => settle.mutate()}>
      No answer needed<span className="sr-only"> by {student.name}</span>
    </button>
  );
}
