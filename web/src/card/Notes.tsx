import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { useState } from "react";
import { api, got, type Schemas } from "../api/client";
import { notesQuery } from "../api/queries";
import { today } from "../page/practice";
import { keep } from "../parts/keep";
import { Trouble } from "../parts/Trouble";
import { day } from "../parts/when";
import { done, failed } from "../shell/undo";

type Note = Schemas["NoteOut"];

/** What the instructor noted, the latest day first; no student reads it. Begun words are kept in this browser. */
export function Notes({ id, name }: { id: string; name: string }) {
  const queries = useQueryClient();
  const notes = useQuery(notesQuery(id));
  const key = `tropometer.note.${id}`;
  const [words, setWords] = useState(() => localStorage.getItem(key) ?? "");
  const [on, setOn] = useState(today);
  const [note, setNote] = useState(() => crypto.randomUUID()); // pressed twice, it is one note
  const write = (text: string) => {
    setWords(text);
    keep(localStorage, key, text);
  };
  const refresh = () => queries.invalidateQueries({ queryKey: notesQuery(id).queryKey });
  const put = ({ id: noteId, day, words }: Note) =>
    got(
      api.PUT("/api/students/{id}/notes/{note_id}", {
        params: { path: { id, note_id: noteId } },
        body: { day, words },
      }),
    );
  const add = useMutation({
    mutationFn: put,
    onSuccess: () => {
      write("");
      setNote(crypto.randomUUID());
      return refresh();
    },
  });
  const remove = useMutation({
    mutationFn: (gone: Note) =>
      got(api.DELETE("/api/students/{id}/notes/{note_id}", { params: { path: { id, note_id: gone.id } } })),
    onSuccess: async (_, gone) => {
      await refresh();
      done("The note is gone.", () => void put(gone).then(refresh).catch(failed));
    },
    onError: failed,
  });
  const trouble = add.error ?? notes.error;
  return (
    <section className="plate p-3" aria-labelledby="notes">
      <h2 id="notes" className="mb-2 text-lg font-semibold">
        Notes
      </h2>
      <form
        className="print:hidden"
        onSubmit={(event) => {
          event.preventDefault();
          if (words.trim()) add.mutate({ id: note, day: on, words: words.trim() });
        }}
      >
        <textarea
          className="textarea w-full"
          rows={2}
          maxLength={4000}
          aria-label={`A note on ${name}; they do not read it`}
          placeholder="Only you read this."
          value={words}
          onChange={(event) => write(event.target.value)}
        />
        <div className="mt-1 flex gap-2">
          <input
            type="date"
            className="input input-sm min-w-0 flex-1"
            aria-label="Day of the note"
            required
            value={on}
            onChange={(event) => setOn(event.target.value)}
          />
          <button type="submit" className="btn btn-sm" disabled={!words.trim() || add.isPending}>
            Note it
          </button>
        </div>
      </form>
      {trouble && <Trouble error={trouble} retry={notes.refetch} />}
      <ul className="mt-2 grid gap-2 text-sm">
        {notes.data?.map((each) => (
          <li key={each.id} className="flex gap-2 border-t border-base-content/20 pt-1.5">
            <p className="min-w-0 flex-1 break-words whitespace-pre-line">
              <span className="opacity-85">{day(each.day)}:</span> {each.words}
            </p>
            <button
              type="button"
              className="btn btn-ghost btn-xs btn-square print:hidden"
              aria-label={`Take away the note of ${day(each.day)}`}
              onClick={() => remove.mutate(each)}
            >
              <Trash2 size={14} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
