import { useMutation, useQueryClient } from "@tanstack/react-query";
import { ChevronRight, FlipHorizontal2, Video } from "lucide-react";
import { type ReactNode, useEffect } from "react";
import { ApiError, api, got } from "../api/client";
import { Drill } from "../lesson/FocusPart";
import { Letterhead } from "../lesson/Letterhead";
import { keepOffline } from "../offline/keepOffline";
import { Trouble } from "../parts/Trouble";
import { usePageTitle } from "../parts/usePageTitle";
import { day } from "../parts/when";
import { ConnectionNote } from "../shell/ConnectionNote";
import { UnsentNotes } from "../shell/UnsentNotes";
import { UntilHere } from "../shell/UntilHere";
import { Asking } from "./Asking";
import { CheckIt } from "./CheckIt";
import { EnterByCode } from "./EnterByCode";
import { MailWish, type Wish } from "./MailWish";
import { OwnGoal } from "./OwnGoal";
import { PracticeDrill } from "./PracticeDrill";
import { PracticeLog } from "./PracticeLog";
import { ThenAndNow } from "./ThenAndNow";
import { type Page, usePage } from "./usePage";

/** A student's own lasting page: all that is theirs in one place. Without a link: the way to it by a code. */
export function OwnPage({ token }: { token: string }) {
  return token ? <Own token={token} /> : <EnterByCode />;
}

function Own({ token }: { token: string }) {
  const page = usePage(token);
  usePageTitle(page.data ? `${page.data.student}'s page` : "Your page");
  const here = page.data !== undefined;
  const portrait = page.data?.look.portrait;
  useEffect(() => {
    if (!here) return;
    void keepOffline([`/api/pages/${token}`, ...(portrait ? [portrait] : [])]);
    if (window.location.pathname.endsWith("/mail")) document.getElementById("mail")?.scrollIntoView();
  }, [here, token, portrait]);
  const gone = page.error instanceof ApiError && page.error.status === 404;
  if (gone) return <EnterByCode gone />;
  if (page.error && !page.data)
    return (
      <main className="mx-auto max-w-md p-4">
        <Trouble error={page.error} retry={page.refetch} />
      </main>
    );
  if (!page.shown || !page.open) return <UntilHere />;
  const { student, instructor, minor, hand, units, focus, lessons, swings, practised, messages } = page.shown;
  const drills = focus.flatMap((each) => each.drills);
  return (
    <main className="min-h-full bg-base-100">
      <ConnectionNote kept="What you have open stays readable; what you tick or ask is kept and sent later." />
      <UnsentNotes />
      <article className="mx-auto max-w-md px-4 pt-5 pb-10">
        <header>
          <Letterhead look={page.shown.look} instructor={instructor} />
          <p className="text-sm">{minor ? "Your page, yours and your guardian's" : "Your page"}</p>
          <h1 className="text-2xl font-bold">{student}</h1>
          <div className="tape-edge mt-1 mb-4 text-brass-ink" aria-hidden />
        </header>
        <SendNext token={token} />
        <Part title="Today">
          {drills.map((drill) => (
            <section key={drill.id} className="mb-5">
              <h3 className="font-semibold">{drill.name}</h3>
              {drill.cue && <p>{drill.cue}</p>}
              <PracticeDrill drill={drill} token={token} practised={practised} hand={hand} />
              {page.shown?.checkable.some((each) => each.drill === drill.id) && (
                <CheckIt drill={drill} tries={page.shown.tries} token={token} units={units} hand={hand} />
              )}
              <details className="border-t border-base-content/20 pt-2">
                <summary className="cursor-pointer text-sm font-semibold">How it goes</summary>
                <Drill drill={{ ...drill, steps: [] }} hand={hand} />
              </details>
            </section>
          ))}
          {drills.length === 0 && <p>No drill yet: it comes with your first lesson.</p>}
          <a className="btn w-full" href={`/p/${token}/mirror`}>
            <FlipHorizontal2 size={18} aria-hidden /> See yourself with lines
          </a>
        </Part>
        <Part title="Practice">
          <PracticeLog practised={practised} />
        </Part>
        {page.shown.goals.length > 0 && (
          <Part title="Goals">
            {page.shown.goals.map((each) => (
              <OwnGoal key={`${each.goal.reading} ${each.goal.at}`} of={each} units={units} hand={hand} />
            ))}
          </Part>
        )}
        {page.shown.then_and_now.length > 0 && (
          <Part title="Then and now">
            {page.shown.then_and_now.map((row) => (
              <ThenAndNow key={`${row.goal.reading} ${row.goal.at}`} row={row} units={units} hand={hand} />
            ))}
          </Part>
        )}
        <Part title="Lessons">
          {lessons.length === 0 && <p>None yet. Send a swing; {instructor} answers it here.</p>}
          <ul>
            {lessons.map((lesson) => (
              <li key={lesson.id} className="border-t border-base-content/20">
                <a className="flex min-h-12 items-center gap-2 py-1" href={`/l/${lesson.token}`}>
                  <span className="flex-1">
                    {lesson.title}
                    <span className="block text-sm opacity-85">
                      {day(lesson.sent_at)}
                      {!lesson.first_read_at && " · not read yet"}
                    </span>
                  </span>
                  <ChevronRight size={18} aria-hidden />
                </a>
              </li>
            ))}
          </ul>
        </Part>
        <Part title="Your swings">
          <Swings swings={swings} token={token} />
        </Part>
        <Asking token={token} instructor={instructor} messages={messages} />
        <MailPart token={token} wish={page.shown.mail_wish} />
        <footer className="mt-8 border-t border-base-content/25 pt-3 text-xs">
          This page is {student}'s and private; whoever has its link can read all of it. If somebody has it
          who should not, ask {instructor} to renew it. Feedback on movement, not medical advice. Stop at
          pain.
        </footer>
      </article>
    </main>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-7">
      <h2 className="mb-1 text-lg font-bold">{title}</h2>
      {children}
    </section>
  );
}

function SendNext({ token }: { token: string }) {
  const send = useMutation({
    mutationFn: () => got(api.POST("/api/pages/{token}/sending", { params: { path: { token } } })),
    onSuccess: (link) => window.location.assign(`/s/${link.token}`),
  });
  return (
    <>
      {send.error && <Trouble error={send.error} />}
      <button
        type="button"
        className="btn btn-primary w-full"
        disabled={send.isPending}
        onClick={() => send.mutate()}
      >
        <Video size={18} aria-hidden /> Send your next swing
      </button>
    </>
  );
}

function Swings({ swings, token }: { swings: Page["swings"]; token: string }) {
  if (!swings.length) return <p>None yet.</p>;
  return (
    <ul className="grid gap-3">
      {swings.map((swing) => (
        <li key={swing.id} className="border-t border-base-content/20 pt-2">
          <p>
            {swing.club || "Swing"} · {day(swing.received_at)}
            <span className="block text-sm opacity-85">
              {swing.answered_at ? "answered" : "waits for its lesson"}
            </span>
          </p>
          {swing.words && <p className="text-sm">{swing.words}</p>}
          <div className="mt-1 flex gap-1">
            {swing.clips.map((clip, i) => (
              <video
                key={clip}
                className="max-h-56 min-w-0 flex-1 bg-dusk"
                src={`/api/pages/${token}/clips/${clip}.mp4`}
                poster={`/api/pages/${token}/clips/${clip}.jpg?height=300`}
                preload="none"
                controls
                muted
                playsInline
                aria-label={`Clip ${i + 1} of your ${swing.club || "swing"}, ${day(swing.received_at)}`}
              />
            ))}
          </div>
        </li>
      ))}
    </ul>
  );
}

function MailPart({ token, wish }: { token: string; wish: Wish }) {
  const queries = useQueryClient();
  const change = useMutation({
    mutationFn: (mail_wish: Wish) =>
      got(api.PUT("/api/pages/{token}/mail", { params: { path: { token } }, body: { mail_wish } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["page", token] }),
  });
  return (
    <section className="mt-8" id="mail">
      {change.error && <Trouble error={change.error} />}
      <MailWish
        wish={change.isPending ? change.variables : wish}
        change={change.mutate}
        hint="Lessons and answers. Never: you find them here, and your instructor gives you the links."
      />
    </section>
  );
}
