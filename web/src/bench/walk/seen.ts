import type { Point } from "../../drawn/stageView";
import type { Showing } from "../../walk/score";
import type { Side } from "../benchState";

interface Seen {
  showings: Partial<Record<Side, Showing>>;
  pointer: (Point & { side: Side }) | null; // picture px
}

/** What only the stages themselves know: how each shows its picture, and where the hand points. */
const seen: Seen = { showings: {}, pointer: null };
const listeners = new Set<() => void>();

export const seenNow = (): Readonly<Seen> => seen;

export function saySeen(side: Side, showing: Showing | null): void {
  if (showing) seen.showings[side] = showing;
  else delete seen.showings[side];
  for (const heard of listeners) heard();
}

export function sayPointer(pointer: Seen["pointer"]): void {
  if (pointer === null && seen.pointer === null) return;
  seen.pointer = pointer;
  for (const heard of listeners) heard();
}

export function onSeen(heard: () => void): () => void {
  listeners.add(heard);
  return () => listeners.delete(heard);
}
