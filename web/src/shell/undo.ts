import { create } from "zustand";

interface Said {
  text: string;
  undo: (() => void) | null; // null: it was not done
}

const SHOWN_MS = 15_000;
let timer: number | undefined;

/** What was just done and can be undone from where one is, or could not be done. */
export const useUndoable = create<{ last: Said | null }>(() => ({ last: null }));

export function done(text: string, undo: () => void): void {
  show({ text, undo });
}

/** Something could not be done, and will not be done later by itself. */
export function failed({ message }: Error): void {
  show({ text: message, undo: null });
}

function show(last: Said): void {
  window.clearTimeout(timer);
  useUndoable.setState({ last });
  timer = window.setTimeout(forget, SHOWN_MS);
}

export function forget(): void {
  useUndoable.setState({ last: null });
}
