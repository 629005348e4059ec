import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, Copy, Send, Trash2 } from "lucide-react";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, got, type Schemas } from "../api/client";
import { drillsQuery, lessonQuery, meQuery } from "../api/queries";
import { Field } from "../parts/Field";
import { Page } from "../parts/Page";
import { Trouble } from "../parts/Trouble";
import { when } from "../parts/when";
import type { Units } from "../units";
import { CHECKPOINT_WORDS, type Checkpoint, forHand } from "../words";
import { DrawnFrame } from "./DrawnFrame";
import { SheetView } from "./SheetView";
import { useSavedText } from "./useSavedText";

type Lesson = Schemas["LessonOut"];
type Frame = Schemas["LessonFrameOut"];

/** Everything that can be done to a lesson; each answer is the lesson as it now is. */
function useLessonActions(id: string) {
  const queries = useQueryClient();
  const path = { id };
  const act = useMutation({
    mutationFn: (doing: () => Promise<Lesson>) => doing(),
    onSuccess: (lesson) => {
      queries.setQueryData(["lesson", id], lesson);
      queries.invalidateQueries({ queryKey: ["sheet-preview", id] });
      queries.invalidateQueries({ queryKey: ["lessons"] });
    },
    scope: { id: `lesson ${id}` }, // one after the other, in the order they were made
  });
  const run = (doing: () => Promise<Lesson>) => act.mutate(doing);
  const framePath = (frame: Frame) => ({ id, frame_id: frame.id });
  return {
    error: act.error,
    busy: act.isPending,
    change: (body: Schemas["LessonChange"]) =>
      run(() => got(api.PATCH("/api/lessons/{id}", { params: { path }, body }))),
    words: (frame: Frame, words: string) =>
      run(() =>
        got(
          api.PATCH("/api/lessons/{id}/frames/{frame_id}", {
            params: { path: framePath(frame) },
            body: { words },
          }),
        ),
      ),
    move: (frame: Frame, position: number) =>
      run(() =>
        got(
          api.PATCH("/api/lessons/{id}/frames/{frame_id}", {
            params: { path: framePath(frame) },
            body: { position },
          }),
        ),
      ),
    remove: (frame: Frame) =>
      run(() =>
        got(api.DELETE("/api/lessons/{id}/frames/{frame_id}", { params: { path: framePath(frame) } })),
      ),
    send: () => run(() => got(api.POST("/api/lessons/{id}/send", { params: { path } }))),
    revoke: () => run(() => got(api.POST("/api/lessons/{id}/revoke", { params: { path } }))),
    renew: () => run(() => got(api.POST("/api/lessons/{id}/renew", { params: { path } }))),
  };
}

export function LessonDesk() {
  const { id = "" } = useParams();
  const lesson = useQuery(lessonQuery(id));
  const units = useQuery(meQuery).data?.units ?? "cm";
  const actions = useLessonActions(id);
  if (lesson.error) return <Trouble error={lesson.error} retry={lesson.refetch} />;
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
      {actions.error && <Trouble error={actions.error} />}
      <div className="grid gap-5 lg:grid-cols-[1fr_400px]">
        <div className="min-w-0">
          {sent ? (
            <SentState lesson={lesson.data} actions={actions} />
          ) : (
            <Draft lesson={lesson.data} units={units} actions={actions} />
          )}
        </div>
        <Preview id={id} />
      </div>
    </Page>
  );
}

type Actions = ReturnType<typeof useLessonActions>;

function Draft({ lesson, units, actions }: { lesson: Lesson; units: Units; actions: Actions }) {
  const drills = useQuery(drillsQuery);
  const title = useSavedText(lesson.title, (text) => text.trim() && actions.change({ title: text }));
  const opening = useSavedText(lesson.opening, (text) => actions.change({ opening: text }));
  const drill = drills.data?.find((each) => each.id === lesson.drill);
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
        onChange={(event) =>
          actions.change({ drill: event.target.value as Schemas["LessonChange"]["drill"] })
        }
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
          <p>{drill.purpose}</p>
          <p className="mt-1">{forHand(drill.feel, lesson.student.hand)}</p>
          <p className="mt-1">
            <strong>Take care.</strong> {drill.caution}
          </p>
        </div>
      )}
      <div className="mt-5 flex items-center gap-3">
        <button type="button" className="btn btn-primary" onClick={actions.send} disabled={actions.busy}>
          <Send size={16} aria-hidden /> Send to {lesson.student.email || "…"}
        </button>
        <span className="text-sm" role="status">
          {actions.busy ? "Saving…" : "Saved"}
        </span>
      </div>
    </>
  );
}

function FrameCard(props: {
  lesson: Lesson;
  frame: Frame;
  place: number;
  last: boolean;
  units: Units;
  actions: Actions;
}) {
  const { lesson, frame, place, last, units, actions } = props;
  const words = useSavedText(frame.words, (text) => actions.words(frame, text));
  const { drawn } = frame;
  const moment = drawn.checkpoint ? CHECKPOINT_WORDS[drawn.checkpoint as Checkpoint] : "between pegs";
  const square = "btn btn-ghost btn-xs btn-square";
  return (
    <li className="plate grid grid-cols-[120px_1fr] gap-3 p-3">
      <DrawnFrame frame={frame} src={`/api/lessons/${lesson.id}/frames/${frame.id}.jpg`} units={units} />
      <div className="flex min-w-0 flex-col">
        <div className="flex items-center gap-2">
          <span
            className={`h-3 w-3 rounded-full ${drawn.whose === "student" ? "bg-clay" : "bg-slate"}`}
            aria-hidden
          />
          <h3 className="font-semibold">
            {drawn.name}, {moment.toLowerCase()}
          </h3>
          <span className="num text-xs">frame {frame.frame}</span>
          <span className="ml-auto flex">
            <button
              type="button"
              className={square}
              aria-label="Earlier"
              disabled={place === 0}
              onClick={() => actions.move(frame, place - 1)}
            >
              <ArrowUp size={14} aria-hidden />
            </button>
            <button
              type="button"
              className={square}
              aria-label="Later"
              disabled={last}
              onClick={() => actions.move(frame, place + 1)}
            >
              <ArrowDown size={14} aria-hidden />
            </button>
            <button
              type="button"
              className={square}
              aria-label="Take out"
              onClick={() => actions.remove(frame)}
            >
              <Trash2 size={14} aria-hidden />
            </button>
          </span>
        </div>
        <textarea
          className="textarea mt-2 w-full"
          rows={4}
          maxLength={2000}
          aria-label={`Words under ${drawn.name}, ${moment.toLowerCase()}`}
          placeholder="What is to be seen here?"
          {...words}
        />
      </div>
    </li>
  );
}

function SentState({ lesson, actions }: { lesson: Lesson; actions: Actions }) {
  const [copied, setCopied] = useState(false);
  return (
    <div className="plate p-4">
      <p className="text-lg font-semibold">Sent {lesson.sent_at && when(lesson.sent_at)}</p>
      <p className="text-sm">
        {lesson.first_read_at ? `First read ${when(lesson.first_read_at)}.` : "Not read yet."} A sent lesson
        can no longer be changed.
      </p>
      {lesson.link ? (
        <>
          <p className="num mt-3 break-all text-sm">{lesson.link}</p>
          <div className="mt-2 flex gap-2">
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => navigator.clipboard.writeText(lesson.link ?? "").then(() => setCopied(true))}
            >
              <Copy size={14} aria-hidden /> {copied ? "Copied" : "Copy the link"}
            </button>
            <button type="button" className="btn btn-sm" onClick={actions.revoke}>
              Take the link back
            </button>
          </div>
        </>
      ) : (
        <>
          <p className="mt-3">The link was taken back: it leads nowhere now.</p>
          <button type="button" className="btn btn-sm mt-2" onClick={actions.renew}>
            Make a new link
          </button>
        </>
      )}
    </div>
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
