import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import type { Schemas } from "../api/client";
import { bodyQuery, goalsQuery, meQuery, studentQuery } from "../api/queries";
import { NoAnswer } from "../inbox/WaitingStudents";
import { PracticeLog } from "../page/PracticeLog";
import { KeepInMind } from "../parts/KeepInMind";
import { Page } from "../parts/Page";
import { Trouble } from "../parts/Trouble";
import { achesInWords } from "../students/bodyWords";
import { PageLink } from "../students/PageLink";
import { SayIt } from "../talk/SayIt";
import { Thread } from "../talk/Thread";
import { CardActions } from "./CardActions";
import { Felt } from "./Felt";
import { type Goal, Goals } from "./Goals";
import { Hours } from "./Hours";
import { Notes } from "./Notes";
import { TimeLine } from "./TimeLine";
import { TrendBoard } from "./TrendBoard";
import { Tries } from "./Tries";
import { useThread } from "./useThread";
import { Who } from "./Who";

/** One student on one page: who, goals, trends, what happened, practice, questions and notes. */
export function StudentCard() {
  const { id = "" } = useParams();
  return <Card key={id} id={id} />;
}

const NONE: Goal[] = []; // the same each time, so that nothing is drawn anew for it
const NOTHING_DONE: Schemas["PractisedOut"][] = [];

function Card({ id }: { id: string }) {
  const student = useQuery(studentQuery(id));
  const thread = useThread(id);
  const body = useQuery(bodyQuery(id));
  const goals = useQuery(goalsQuery(id));
  const units = useQuery(meQuery).data?.units ?? "cm";
  if (student.error && !student.data) return <Trouble error={student.error} retry={student.refetch} />;
  if (!student.data) return <p className="p-6">Fetching the student…</p>;
  const { name, hand, history, archived_at } = student.data;
  const waits =
    thread.messages.some(({ side, settled_at, waits }) => side === "student" && !settled_at && !waits) &&
    !thread.messages.some(({ waits }) => waits);
  const talk = (
    <section aria-labelledby="thread">
      <Heading id="thread">Questions and answers</Heading>
      {thread.error && !thread.data && <Trouble error={thread.error} retry={thread.refetch} />}
      {thread.data && thread.messages.length === 0 && (
        <p className="plate border-dashed p-4">
          Nothing was said yet. {name} asks from the lesson sheet or their own page.
        </p>
      )}
      <Thread
        messages={thread.messages}
        own="instructor"
        other={name}
        voice={(message) => `/api/students/${id}/messages/${message}/voice.m4a`}
      />
      <div className="mt-4 print:hidden">
        <SayIt name={`student.${id}`} label={`To ${name}`} button="Say it" say={thread.say} />
        {waits && (
          <div className="mt-2">
            <NoAnswer student={student.data} />
          </div>
        )}
      </div>
    </section>
  );
  return (
    <Page title={name} actions={<CardActions student={student.data} />}>
      {archived_at && (
        <p className="plate mb-3 border-dashed p-2 text-sm" role="status">
          {name} is not on the list of those you teach. All that is theirs is kept.
        </p>
      )}
      <KeepInMind hurts={achesInWords(body.data?.aches ?? [], hand)} history={history} />
      <div className="mt-4 grid gap-6 lg:grid-cols-[minmax(0,1fr)_300px]">
        <div className="grid content-start gap-6">
          {waits && talk}
          <section aria-labelledby="goals">
            <Heading id="goals">Goals</Heading>
            {goals.error && !goals.data && <Trouble error={goals.error} retry={goals.refetch} />}
            {goals.data && <Goals goals={goals.data} units={units} />}
          </section>
          <section aria-labelledby="trends">
            <Heading id="trends">Over time</Heading>
            <TrendBoard
              id={id}
              goals={goals.data ?? NONE}
              practised={thread.data?.practised ?? NOTHING_DONE}
              units={units}
            />
          </section>
          <section aria-labelledby="time">
            <Heading id="time">Swings and lessons</Heading>
            <TimeLine id={id} name={name} />
          </section>
          {!waits && talk}
        </div>
        <aside className="grid content-start gap-4">
          <Who student={student.data} body={body.data} />
          <section className="plate p-3" aria-labelledby="hours">
            <Heading id="hours">Studio hours</Heading>
            <Hours id={id} />
          </section>
          <Notes id={id} name={name} />
          {thread.data && (
            <>
              <section className="plate p-3" aria-labelledby="practice">
                <Heading id="practice">Practice</Heading>
                <PracticeLog practised={thread.data.practised} />
                <Felt practised={thread.data.practised} hand={hand} />
                <Tries id={id} units={units} hand={hand} />
              </section>
              <div className="print:hidden">
                <PageLink student={student.data} page={thread.data.page} />
              </div>
            </>
          )}
        </aside>
      </div>
    </Page>
  );
}

function Heading({ id, children }: { id: string; children: string }) {
  return (
    <h2 id={id} className="mb-2 text-lg font-semibold">
      {children}
    </h2>
  );
}
