import { useQuery } from "@tanstack/react-query";
import { Send } from "lucide-react";
import { Link } from "react-router";
import { planQuery } from "../api/queries";
import { lessonLane } from "../outbox/posts";
import { Field } from "../parts/Field";
import { day } from "../parts/when";
import type { Units } from "../units";
import type { Hand } from "../words";
import { FrameCard } from "./FrameCard";
import { goalWords } from "./goalWords";
import { Remarks, useRemarks } from "./Remarks";
import { SendLater } from "./SendLater";
import { Templates } from "./Templates";
import { TriedChoice } from "./TriedChoice";
import type { Actions, Lesson } from "./useLessonActions";
import { useSavedText } from "./useSavedText";

/** A lesson that is being written: its words, its frames, what it is about, and its sending. */
export function Draft({ lesson, units, actions }: { lesson: Lesson; units: Units; actions: Actions }) {
  const title = useSavedText(lesson.title, {
    lane: lessonLane(lesson.id),
    subject: "title",
    what: "the lesson's title",
    post: (text) => (text.trim() ? { kind: "lesson", lessonId: lesson.id, change: { title: text } } : null),
    textOf: (post) => (post.kind === "lesson" ? post.change.title : null),
  });
  const opening = useSavedText(lesson.opening, {
    lane: lessonLane(lesson.id),
    subject: "opening",
    what: "the opening words",
    post: (text) => ({ kind: "lesson", lessonId: lesson.id, change: { opening: text } }),
    textOf: (post) => (post.kind === "lesson" ? post.change.opening : null),
  });
  const remarks = useRemarks(lesson.id);
  return (
    <>
      {lesson.correcting && (
        <p className="plate mb-4 border-l-4 border-l-brass p-3 text-sm">
          You are writing version {lesson.versions.length + 1}. {lesson.student.name} reads what was sent
          until it goes, and both afterwards. The walk stays as it was sent.
        </p>
      )}
      <Field label="Title">
        <input className="input w-full" maxLength={120} {...title} />
      </Field>
      <Field label="Opening words" hint="Start with what already looks good.">
        <textarea className="textarea w-full" rows={3} maxLength={4000} {...opening} />
      </Field>
      <Templates
        opening={opening.value}
        student={lesson.student.name}
        club={lesson.club}
        put={(text) => opening.onChange({ target: { value: text } })}
      />
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
      <TriedChoice lesson={lesson} put={actions.putTries} />
      <h2 className="mt-5 mb-2 text-lg font-semibold">What it is about</h2>
      <DraftPlan swingId={lesson.swing_id} units={units} hand={lesson.student.hand} />
      {remarks.data && <Remarks remarks={remarks.data} />}
      <div className="mt-5 flex flex-wrap items-center gap-3">
        <button
          type="button"
          className="btn btn-primary"
          onClick={actions.send}
          disabled={actions.busy || actions.unsaved}
        >
          <Send size={16} aria-hidden />{" "}
          {lesson.correcting ? "Send the correction" : `Send to ${lesson.student.email || "…"}`}
        </button>
        {lesson.correcting && (
          <button type="button" className="btn" onClick={actions.leaveCorrection} disabled={actions.busy}>
            Leave it as it was sent
          </button>
        )}
        {actions.unsaved && <span className="text-sm">Something of it is still on its way.</span>}
      </div>
      <SendLater lesson={lesson} actions={actions} />
    </>
  );
}

/** What was chosen at Judge, in short: the student reads all of it beside. */
function DraftPlan({ swingId, units, hand }: { swingId: string; units: Units; hand: Hand }) {
  const plan = useQuery(planQuery(swingId));
  const judge = (
    <Link className="link" to={`/bench/${swingId}?station=judge`}>
      {plan.data ? "Change it at Judge" : "Choose it at Judge"}
    </Link>
  );
  if (plan.isPending) return <p className="text-sm">Judging …</p>;
  if (!plan.data?.focus.length)
    return <p className="plate border-dashed p-4 text-sm">No focus and no drill yet. {judge}.</p>;
  return (
    <div className="plate border-l-4 border-l-brass p-3 text-sm">
      <ol className="grid gap-2">
        {plan.data.focus.map((focus) => (
          <li key={focus.fault}>
            <p className="font-semibold">{focus.name}</p>
            <p>{focus.words}</p>
            {focus.drills.map((drill) => (
              <p key={drill.id}>
                {drill.name}
                {drill.dose && `: ${drill.dose}`}
              </p>
            ))}
            {focus.goal && (
              <p>
                Goal{focus.goal.by && ` by ${day(focus.goal.by)}`}: {goalWords(focus.goal, units, hand)}.
              </p>
            )}
          </li>
        ))}
      </ol>
      <p className="mt-2">{judge}.</p>
    </div>
  );
}
