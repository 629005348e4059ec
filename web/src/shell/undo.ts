import { create } from "zustand";

interface Undoable {
  text: string;
  undo: () => void;
}

const SHOWN_MS = 15_000;
let timer: number | undefined;

/** What was just done and can be undone from where one is. */
export const useUndoable = create<{ last: Undoable | null }>(() => ({ last: null }));

export function done(text: string, undo: () => void): void {
  window.clearTimeout(timer);
  useUndoable.setState({ last: { text, undo } });
  timer = window.setTimeout(forget, SHOWN_MS);
}

export function forget(): void {
  useUndoable.setState({ last: null });
}
