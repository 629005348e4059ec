import { Clock } from "lucide-react";
import { useState } from "react";
import type { Actions, Lesson } from "./useLessonActions";

const MINUTE_MS = 60_000;

/** Having a draft sent by itself, at a time on this reader's clock. */
export function SendLater({ lesson, actions }: { lesson: Lesson; actions: Actions }) {
  const [at, setAt] = useState("");
  if (lesson.send_at)
    return (
      <p className="mt-3 flex flex-wrap items-center gap-3 text-sm" role="status">
        <Clock size={16} aria-hidden /> It goes by itself on {spoken(lesson.send_at)}. You can write in it
        until then.
        <button type="button" className="btn btn-sm" disabled={actions.busy} onClick={actions.sendNoMore}>
          Not by itself
        </button>
      </p>
    );
  return (
    <>
      {lesson.send_trouble && (
        <p role="alert" className="mt-3 border-l-4 border-brass pl-2 text-sm">
          It did not go by itself: {lesson.send_trouble}
        </p>
      )}
      <form
        className="mt-3 flex flex-wrap items-end gap-2 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          actions.sendLater(new Date(at).toISOString());
        }}
      >
        <label>
          Or send it later
          <input
            type="datetime-local"
            required
            className="input input-sm num mt-1 block"
            min={local(new Date(Date.now() + MINUTE_MS))}
            value={at}
            onChange={(event) => setAt(event.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-sm" disabled={!at || actions.busy || actions.unsaved}>
          Send then
        </button>
      </form>
    </>
  );
}

function spoken(iso: string): string {
  return new Date(iso).toLocaleString(undefined, {
    weekday: "short",
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });
}

/** As the browser's own field for a time has it. */
function local(date: Date): string {
  return new Date(date.getTime() - date.getTimezoneOffset() * MINUTE_MS).toISOString().slice(0, 16);
}
