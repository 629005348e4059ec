import { Copy, Pencil, Undo2 } from "lucide-react";
import { useEffect, useState } from "react";
import { Field } from "../parts/Field";
import { when } from "../parts/when";
import type { Actions, Lesson } from "./useLessonActions";

/** A lesson that was sent: whether its mail has gone, whether it was read, and what its link still does. */
export function SentState({ lesson, actions }: { lesson: Lesson; actions: Actions }) {
  const [copied, setCopied] = useState(false);
  const left = useSecondsLeft(lesson.seconds_to_take_back);
  return (
    <div className="plate p-4">
      <p className="text-lg font-semibold">Sent {lesson.sent_at && when(lesson.sent_at)}</p>
      <p className="text-sm">
        {lesson.first_read_at ? `First read ${when(lesson.first_read_at)}.` : "Not read yet."}{" "}
        {lesson.versions.length > 1 &&
          `Version ${lesson.versions.length}; the first went ${when(lesson.versions[0]?.sent_at ?? "")}.`}
      </p>
      {left <= 0 && (
        <p className="mt-2 flex flex-wrap items-center gap-3 text-sm">
          <button type="button" className="btn btn-sm" onClick={actions.correct} disabled={actions.busy}>
            <Pencil size={14} aria-hidden /> Correct it
          </button>
          <span>
            A sent lesson stays as it is; a correction is a new version that the student sees as such.
          </span>
        </p>
      )}
      {left > 0 && (
        <p className="mt-2 flex items-center gap-3 text-sm" role="status">
          <button type="button" className="btn btn-sm" onClick={actions.takeBack} disabled={actions.busy}>
            <Undo2 size={14} aria-hidden /> Take it back
          </button>
          <span>
            The mail goes in <span className="num">{Math.ceil(left)}</span> s.
          </span>
        </p>
      )}
      {left <= 0 && !lesson.mailed_at && (
        <p className="mt-2 flex flex-wrap items-center gap-3 text-sm" role="status">
          {lesson.mail_trouble ? `The mail has not gone: ${lesson.mail_trouble}.` : "The mail is on its way."}
          {lesson.mail_trouble && (
            <button type="button" className="btn btn-sm" onClick={actions.mailAgain} disabled={actions.busy}>
              Try now
            </button>
          )}
        </p>
      )}
      {lesson.link ? (
        <>
          <p className="num mt-3 break-all text-sm">{lesson.link}</p>
          <div className="mt-2 mb-3 flex flex-wrap gap-2">
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
          <Field label="The link holds until" hint="Empty: until you take it back.">
            <input
              className="input input-sm num"
              type="date"
              value={lesson.expires_on ?? ""}
              onChange={(event) => actions.setExpiry(event.target.value || null)}
            />
          </Field>
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

/** Seconds that are left, counted down from what the server last said. */
function useSecondsLeft(said: number): number {
  const [until, setUntil] = useState(0);
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    setUntil(Date.now() + said * 1000);
    setNow(Date.now());
  }, [said]);
  const left = (until - now) / 1000;
  useEffect(() => {
    if (left <= 0) return;
    const timer = window.setTimeout(() => setNow(Date.now()), 250);
    return () => window.clearTimeout(timer);
  }, [left]);
  return Math.max(0, left);
}
