import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { lessonsQuery, swingsQuery } from "../api/queries";
import { BenchLink } from "../parts/BenchLink";
import { Trouble } from "../parts/Trouble";
import { day } from "../parts/when";

const SHOWN = 8;

/** A student's swings, the latest first, each with the lesson that answered it. */
export function TimeLine({ id, name }: { id: string; name: string }) {
  const [page, setPage] = useState(0);
  const swings = useQuery(swingsQuery({ student: id, limit: SHOWN, offset: page * SHOWN }));
  const lessons = useQuery(lessonsQuery({ student: id, limit: 200 }));
  if (swings.error && !swings.data) return <Trouble error={swings.error} retry={swings.refetch} />;
  const count = swings.data?.count ?? 0;
  if (swings.data && !count)
    return <p className="plate border-dashed p-4">{name} has sent no swing yet. Ask for one.</p>;
  return (
    <>
      <ul className="plate divide-y divide-base-content/20 text-sm">
        {swings.data?.items.map((swing) => {
          const lesson = lessons.data?.items.find(({ swing_id }) => swing_id === swing.id);
          return (
            <li key={swing.id} className="flex flex-wrap items-baseline gap-x-3 px-3 py-2">
              {swing.clips.some(({ state }) => state === "ready") ? (
                <BenchLink className="font-medium underline" id={swing.id}>
                  {day(swing.received_at)}, {swing.club || "swing"}
                </BenchLink>
              ) : (
                <span className="font-medium">
                  {day(swing.received_at)}, {swing.club || "swing"}
                </span>
              )}
              <span className="min-w-0 flex-1 truncate opacity-90">{swing.words}</span>
              {lesson ? (
                <Link className="underline" to={`/lessons/${lesson.id}`}>
                  {lesson.sent_at ? `lesson sent ${day(lesson.sent_at)}` : "lesson begun"}
                </Link>
              ) : (
                swing.clips.length > 0 && <span>{swing.answered_at ? "answered" : "waits"}</span>
              )}
            </li>
          );
        })}
      </ul>
      {count > SHOWN && (
        <nav aria-label="Pages of swings" className="mt-2 flex items-center gap-3 text-sm print:hidden">
          <button
            type="button"
            className="btn btn-xs"
            disabled={page === 0}
            onClick={() => setPage(page - 1)}
          >
            Later
          </button>
          <span className="num" role="status">
            {page * SHOWN + 1} to {Math.min((page + 1) * SHOWN, count)} of {count}
          </span>
          <button
            type="button"
            className="btn btn-xs"
            disabled={(page + 1) * SHOWN >= count}
            onClick={() => setPage(page + 1)}
          >
            Earlier
          </button>
        </nav>
      )}
    </>
  );
}
