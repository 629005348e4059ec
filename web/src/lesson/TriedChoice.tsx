import { useQuery } from "@tanstack/react-query";
import { useId } from "react";
import { hoursQuery } from "../api/queries";
import { day } from "../parts/when";
import type { Lesson } from "./useLessonActions";

/** Which of the student's studio hours the lesson tells; nothing where there was none. */
export function TriedChoice({ lesson, put }: { lesson: Lesson; put: (hourId: string | null) => void }) {
  const field = useId();
  const hours = useQuery(hoursQuery(lesson.student.id)).data?.items ?? [];
  const told = lesson.tries;
  if (!hours.length && !told) return null;
  const gone = told && !hours.some(({ id }) => id === told.hour_id);
  return (
    <section className="mt-5">
      <label className="mb-2 block text-lg font-semibold" htmlFor={field}>
        Tries of a studio hour
      </label>
      <div className="flex flex-wrap items-center gap-2">
        <select
          id={field}
          className="select w-auto max-w-full"
          value={told?.hour_id ?? ""}
          onChange={(event) => put(event.target.value || null)}
        >
          <option value="">None</option>
          {gone && <option value={told.hour_id}>{day(told.day)}, forgotten since</option>}
          {hours.map(({ id, day: on, about, tries }) => (
            <option key={id} value={id}>
              {day(on)}
              {about && `: ${about}`} ({tries} {tries === 1 ? "try" : "tries"})
            </option>
          ))}
        </select>
        {told && !gone && (
          <button type="button" className="btn btn-sm" onClick={() => put(told.hour_id)}>
            Take it as it stands now
          </button>
        )}
      </div>
      {told && told.columns.length === 0 && (
        <p className="mt-1 text-sm" role="status">
          Nothing is watched at its tries that somebody looked at: the student sees nothing of it.
        </p>
      )}
    </section>
  );
}
