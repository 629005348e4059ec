import { useQuery } from "@tanstack/react-query";
import { Send } from "lucide-react";
import { drillsQuery } from "../api/queries";
import { Field } from "../parts/Field";
import type { Units } from "../units";
import { forHand } from "../words";
import { FrameCard } from "./FrameCard";
import type { Actions, Lesson } from "./useLessonActions";
import { useSavedText } from "./useSavedText";

/** A lesson that is being written: its words, its frames, its drill, and its sending. */
export function Draft({ lesson, units, actions }: { lesson: Lesson; units: Units; actions: Actions }) {
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
        {actions.unsaved && <span className="text-sm">Something of it is still on its way.</span>}
      </div>
    </>
  );
}
