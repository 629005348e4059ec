import { Combobox, ComboboxItem, ComboboxList, ComboboxProvider } from "@ariakit/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { studentsQuery } from "../api/queries";
import { found } from "./found";
import { PLACES } from "./Places";

export interface Choice {
  id: string;
  words: string;
  note?: string; // where it is done, or what it is
  shown?: string; // its key
  run: () => void;
}

const MOST_NAMES = 8;

/** Finds what can be done, a place or a student by any part of the words, and does it or goes there. */
export function Finder({ choices = [], close }: { choices?: Choice[]; close: () => void }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [wanted, setWanted] = useState("");
  const navigate = useNavigate();
  useEffect(() => {
    if (!dialog.current?.open) dialog.current?.showModal();
  }, []);
  const q = wanted.trim();
  const names = useQuery({ ...studentsQuery({ q, show: "all", limit: MOST_NAMES }), enabled: q !== "" });
  const students: Choice[] = (q ? (names.data?.items ?? []) : []).map(({ id, name, archived_at }) => ({
    id: `student ${id}`,
    words: name,
    note: archived_at ? "student, archived" : "student",
    run: () => void navigate(`/students/${id}`),
  }));
  const places: Choice[] = PLACES.map(([to, words]) => ({
    id: `place ${to}`,
    words,
    note: "place",
    run: () => void navigate(to),
  }));
  const all = [...found(choices, wanted), ...students, ...found(places, wanted)];
  return (
    <dialog ref={dialog} className="modal modal-top" aria-label="Find anything" onClose={close}>
      <div className="modal-box mx-auto mt-16 w-full max-w-lg rounded p-2">
        <ComboboxProvider open focusLoop={false} value={wanted} setValue={setWanted}>
          <Combobox
            autoFocus
            autoSelect="always"
            className="input w-full"
            placeholder="What, where or who?"
            aria-label="What, where or who?"
          />
          <ComboboxList className="mt-2 grid max-h-80 overflow-y-auto" alwaysVisible>
            {all.map(({ id, words, note, shown, run }) => (
              <ComboboxItem
                key={id}
                value={words}
                setValueOnClick={false}
                hideOnClick={false}
                className="flex cursor-pointer items-baseline gap-3 rounded-sm px-2 py-1 text-sm data-[active-item]:bg-brass/25"
                onClick={() => {
                  close();
                  run();
                }}
              >
                <span className="min-w-0 flex-1">
                  {words}
                  {note && <span className="opacity-75"> · {note}</span>}
                </span>
                {shown && <kbd className="num text-xs opacity-80">{shown}</kbd>}
              </ComboboxItem>
            ))}
          </ComboboxList>
          {all.length === 0 && !names.isFetching && (
            <p className="px-2 py-1 text-sm">Nothing here is called that.</p>
          )}
        </ComboboxProvider>
      </div>
    </dialog>
  );
}
