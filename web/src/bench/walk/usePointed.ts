import { type PointerEvent, useEffect } from "react";
import { type Size, toPicture, type View } from "../../drawn/stageView";
import type { Side } from "../benchState";
import { isRecording } from "./recording";
import { sayPointer, saySeen, seenNow } from "./seen";

/** Tells a walk that is recorded how a stage shows its picture, and where the hand points on it. */
export function usePointed(side: Side, view: View | null, size: Size) {
  useEffect(() => {
    if (!view || !size.height) return;
    const { cx, cy, scale, mirrored } = view;
    saySeen(side, { cx, cy, high: size.height / scale, wide: size.width / scale, mirrored });
    return () => saySeen(side, null);
  }, [side, view, size.height, size.width]);
  return {
    move: (event: PointerEvent<HTMLElement>) => {
      if (!view || !isRecording()) return;
      const rect = event.currentTarget.getBoundingClientRect();
      sayPointer({
        side,
        ...toPicture({ x: event.clientX - rect.left, y: event.clientY - rect.top }, view, size),
      });
    },
    leave: (event: PointerEvent<HTMLElement>) => {
      const to = event.relatedTarget;
      if (to instanceof Node && event.currentTarget.contains(to)) return;
      if (seenNow().pointer?.side === side) sayPointer(null);
    },
  };
}
