import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../api/client";
import { type Student, studentsQuery } from "../api/queries";
import { Trouble } from "../parts/Trouble";

const MOST = 8;

/** Two cards of one person made one: the other is chosen, and what will happen is said before it does. */
export function MergeCards({ student, done }: { student: Student; done: () => void }) {
  const queries = useQueryClient();
  const [q, setQ] = useState("");
  const [other, setOther] = useState<Student | null>(null);
  const found = useQuery({ ...studentsQuery({ q, show: "all", limit: MOST }), enabled: q.trim() !== "" });
  const merge = useMutation({
    mutationFn: (gone: Student) =>
      got(
        api.POST("/api/students/{id}/merge", {
          params: { path: { id: student.id } },
          body: { other: gone.id },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries();
      done();
    },
  });
  const offered = (q.trim() ? (found.data?.items ?? []) : []).filter(({ id }) => id !== student.id);
  return (
    <>
      {merge.error && <Trouble error={merge.error} />}
      {other ? (
        <>
          <p>
            Swings, lessons, notes, practice and questions of <strong>{other.name}</strong>
            {other.email && ` (${other.email})`} go onto the card of <strong>{student.name}</strong>. Where
            both say something, this card's word stands. The other card, and the link to its page, are gone.
          </p>
          <p className="mt-2 font-semibold">This cannot be undone.</p>
          <div className="mt-4 flex gap-2">
            <button
              type="button"
              className="btn btn-primary"
              disabled={merge.isPending}
              onClick={() => merge.mutate(other)}
            >
              Make them one card
            </button>
            <button type="button" className="btn" onClick={() => setOther(null)}>
              Not this one
            </button>
          </div>
        </>
      ) : (
        <>
          <label className="block text-sm font-semibold">
            Which other card is {student.name} too?
            <input
              type="search"
              className="input mt-1 w-full font-normal"
              value={q}
              maxLength={100}
              onChange={(event) => setQ(event.target.value)}
            />
          </label>
          <ul className="mt-2 grid gap-1">
            {offered.map((each) => (
              <li key={each.id}>
                <button type="button" className="btn w-full justify-start" onClick={() => setOther(each)}>
                  {each.name}{" "}
                  <span className="font-normal">
                    {[each.email, each.archived_at && "archived"].filter(Boolean).join(", ")}
                  </span>
                </button>
              </li>
            ))}
          </ul>
          {found.data && q.trim() && !offered.length && (
            <p className="mt-2 text-sm">No other card is found.</p>
          )}
        </>
      )}
    </>
  );
}
