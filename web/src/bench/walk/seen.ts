import type { Point } from "../../drawn/stageView";
import type { Showing } from "../../walk/score";
import type { Side } from "../benchState";

interface Seen {
  showings: Partial<Record<Side, Showing>>;
  pointer: (Point & { side: Side }) | null; // picture px
  curve: string | null; // the reading whose curve lies open
}

/** What only the screen itself knows: how each stage shows its picture, where the hand points, which curve it draws. */
const seen: Seen = { showings: {}, pointer: null, curve: null };
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

export function sayCurve(curve: string | null): void {
  seen.curve = curve;
  for (const heard of listeners) heard();
}

export function onSeen(heard: () => void): () => void {
  listeners.add(heard);
  return () => listeners.delete(heard);
}
