import { Combobox, ComboboxItem, ComboboxList, ComboboxProvider } from "@ariakit/react";
import { useEffect, useRef, useState } from "react";
import { STATION_WORDS, type Station } from "../stations/stations";
import { COMMAND_IDS, type CommandId, commandOf } from "./table";

interface Props {
  station: Station;
  choose: (id: CommandId) => void;
  close: () => void;
}

const CHOICES = COMMAND_IDS.map((id) => ({ id, ...commandOf(id) })).filter(
  (each) => !each.held && each.places === undefined && each.id !== "palette",
);

/** What has all the words in its own, where they stand nearest to the beginning first. */
function foundBy(wanted: string): typeof CHOICES {
  const words = wanted.toLowerCase().trim().split(/\s+/);
  const places = (text: string) => words.map((word) => text.toLowerCase().indexOf(word));
  return CHOICES.filter((each) => places(each.words).every((place) => place >= 0)).sort(
    (a, b) => Math.min(...places(a.words)) - Math.min(...places(b.words)),
  );
}

/** Finds what the bench can do by any part of its words, and does it. */
export function Palette({ station, choose, close }: Props) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [wanted, setWanted] = useState("");
  useEffect(() => {
    if (!dialog.current?.open) dialog.current?.showModal();
  }, []);
  const found = foundBy(wanted);
  return (
    <dialog
      ref={dialog}
      className="modal modal-top"
      aria-label="Find anything the bench can do"
      onClose={close}
    >
      <div className="modal-box mx-auto mt-16 w-full max-w-lg rounded p-2">
        <ComboboxProvider open focusLoop={false} value={wanted} setValue={setWanted}>
          <Combobox
            autoFocus
            autoSelect="always"
            className="input w-full"
            placeholder="What do you want to do?"
            aria-label="What do you want to do?"
          />
          <ComboboxList className="mt-2 grid max-h-80 overflow-y-auto" alwaysVisible>
            {found.map(({ id, words, shown, at }) => (
              <ComboboxItem
                key={id}
                value={words}
                setValueOnClick={false}
                hideOnClick={false}
                className="flex cursor-pointer items-baseline gap-3 rounded-sm px-2 py-1 text-sm data-[active-item]:bg-brass/25"
                onClick={() => {
                  close();
                  choose(id);
                }}
              >
                <span className="min-w-0 flex-1">
                  {words}
                  {at && !at.includes(station) && (
                    <span className="opacity-75">
                      {" "}
                      · at {at.map((each) => STATION_WORDS[each]).join(", ")}
                    </span>
                  )}
                </span>
                <kbd className="num text-xs opacity-80">{shown}</kbd>
              </ComboboxItem>
            ))}
          </ComboboxList>
          {found.length === 0 && <p className="px-2 py-1 text-sm">Nothing on the bench is called that.</p>}
        </ComboboxProvider>
      </div>
    </dialog>
  );
}
