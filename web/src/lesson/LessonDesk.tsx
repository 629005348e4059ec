import { useQuery } from "@tanstack/react-query";
import { Send } from "lucide-react";
import { Link, useParams } from "react-router";
import { api, got } from "../api/client";
import { drillsQuery, lessonQuery, meQuery } from "../api/queries";
import { Field } from "../parts/Field";
import { KeepInMind } from "../parts/KeepInMind";
import { Page } from "../parts/Page";
import { Trouble } from "../parts/Trouble";
import type { Units } from "../units";
import { forHand } from "../words";
import { FrameCard } from "./FrameCard";
import { SentState } from "./SentState";
import { SheetView } from "./SheetView";
import { type Actions, type Lesson, useLessonActions } from "./useLessonActions";
import { useSavedText } from "./useSavedText";

/** Writing the lesson of a swing beside what the student will read. */
export function LessonDesk() {
  const { id = "" } = useParams();
  const lesson = useQuery(lessonQuery(id));
  const units = useQuery(meQuery).data?.units ?? "cm";
  const actions = useLessonActions(id);
  if (lesson.error && !lesson.data) return <Trouble error={lesson.error} retry={lesson.refetch} />;
  if (!lesson.data) return <p className="p-6">Fetching the lesson…</p>;
  const sent = lesson.data.sent_at !== null;
  return (
    <Page
      title={`Lesson for ${lesson.data.student.name}`}
      actions={
        <Link className="btn btn-sm" to={`/bench/${lesson.data.swing_id}`}>
          Back to the bench
        </Link>
      }
    >
      <div className="mb-3">
        <KeepInMind hurts={lesson.data.what_hurts} history={lesson.data.student.history} />
      </div>
      {actions.error && <Trouble error={actions.error} />}
      <div className="grid gap-5 lg:grid-cols-[1fr_400px]">
        <div className="min-w-0">
          {sent ? (
            <SentState lesson={lesson.data} actions={actions} />
          ) : (
            <Draft key={lesson.data.id} lesson={lesson.data} units={units} actions={actions} />
          )}
        </div>
        <Preview id={id} />
      </div>
    </Page>
  );
}

function Draft({ lesson, units, actions }: { lesson: Lesson; units: Units; actions: Actions }) {
  const drills = useQuery(drillsQuery);
  const title = useSavedText(lesson.title, {
    lessonId: lesson.id,
    subject: "title",
    what: "the lesson's title",
    post: (text) => (text.trim() ? { kind: "lesson", lessonId: lesson.id, change: { title: text } } : null),
    textOf: (post) => (post.kind === "lesson" ? post.change.title : null),
  });
  const opening = useSavedText(lesson.opening, {
    lessonId: lesson.id,
    subject: "opening",
    what: "the opening words",
    post: (text) => ({ kind: "lesson", lessonId: lesson.id, change: { opening: text } }),
    textOf: (post) => (post.kind === "lesson" ? post.change.opening : null),
  });
  const drill = drills.data?.find((each) => each.id === lesson.drill);
  const hand = lesson.student.hand;
  return (
    <>
      <Field label="Title">
        <input className="input w-full" maxLength={120} {...title} />
      </Field>
      <Field label="Opening words" hint="Start with what already looks good.">
        <textarea className="textarea w-full" rows={3} maxLength={4000} {...opening} />
      </Field>
      <h2 className="mt-4 mb-2 text-lg font-semibold">Frames</h2>
      {lesson.frames.length === 0 && (
        <p className="plate border-dashed p-4">
          No frame yet. On the bench, go to a frame and press <kbd className="kbd kbd-sm">P</kbd>.
        </p>
      )}
      <ol className="grid gap-3">
        {lesson.frames.map((frame, i) => (
          <FrameCard
            key={frame.id}
            lesson={lesson}
            frame={frame}
            place={i}
            last={i === lesson.frames.length - 1}
            units={units}
            actions={actions}
          />
        ))}
      </ol>
      {lesson.frames.length > 3 && (
        <p className="mt-2 text-sm">
          Three things are kept; ten are forgotten. This lesson has {lesson.frames.length}.
        </p>
      )}
      <h2 className="mt-5 mb-2 text-lg font-semibold">Drill</h2>
      <select
        className="select w-full"
        aria-label="Drill"
        value={lesson.drill}
        onChange={(event) => actions.change({ drill: event.target.value })}
      >
        <option value="">No drill</option>
        {drills.data?.map((each) => (
          <option key={each.id} value={each.id}>
            {each.name}
          </option>
        ))}
      </select>
      {drill && (
        <div className="plate mt-2 border-l-4 border-l-brass p-3 text-sm">
          <p>{forHand(drill.purpose, hand)}</p>
          <p className="mt-1">{forHand(drill.feel, hand)}</p>
          <p className="mt-1">
            <strong>Take care.</strong> {forHand(drill.caution, hand)}
          </p>
        </div>
      )}
      <div className="mt-5 flex flex-wrap items-center gap-3">
        <button
          type="button"
          className="btn btn-primary"
          onClick={actions.send}
          disabled={actions.busy || actions.unsaved}
        >
          <Send size={16} aria-hidden /> Send to {lesson.student.email || "…"}
        </button>
        {actions.unsaved && <span className="text-sm">Your words are still on their way.</span>}
      </div>
    </>
  );
}

function Preview({ id }: { id: string }) {
  const sheet = useQuery({
    queryKey: ["sheet-preview", id],
    queryFn: () => got(api.GET("/api/lessons/{id}/sheet", { params: { path: { id } } })),
  });
  return (
    <aside aria-label="Preview of the lesson sheet">
      <h2 className="mb-2 text-lg font-semibold">What the student reads</h2>
      <section
        aria-label="The sheet, as on a phone"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keys must reach it
        tabIndex={0}
        className="max-h-[calc(100vh-170px)] overflow-y-auto rounded-lg border-[6px] border-pine"
      >
        {sheet.data && (
          <SheetView sheet={sheet.data} still={(frame) => `/api/lessons/${id}/frames/${frame.id}.jpg`} />
        )}
      </section>
    </aside>
  );
}
