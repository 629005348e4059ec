import type { KeyboardEvent } from "react";
import type { Point, View } from "../../drawn/stageView";
import { useBench } from "../benchContext";
import type { ShownMark } from "../marks/MarkLayer";

const NUDGE_CSS_PX = 0.1;
const WAYS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface About {
  view: View | null;
  mark: ShownMark | undefined; // the chosen one
  hand: string | null; // the mark that is put with the tool in hand
  put: (name: string, at: Point, gesture?: string) => void;
  used: () => void;
}

/** Keys on a stage: arrows nudge the chosen mark; Enter puts the one in hand where no pointer aims. */
export function useNudge({ view, mark, hand, put, used }: About) {
  const set = useBench((bench) => bench.set);
  return (event: KeyboardEvent) => {
    if (!view || event.ctrlKey || event.metaKey) return;
    const way = WAYS[event.key];
    const begins = event.key === "Enter" && hand !== null;
    if (!(way && mark) && !begins) return;
    event.preventDefault();
    event.stopPropagation();
    used();
    if (way && mark) {
      const amount = ((event.shiftKey ? 10 : 1) * NUDGE_CSS_PX) / view.scale;
      const turned = view.mirrored ? -1 : 1;
      put(
        mark.name,
        { x: mark.x + turned * way[0] * amount, y: mark.y + way[1] * amount },
        `nudge ${mark.name}`,
      );
    } else if (hand !== null) {
      // Without a pointer a mark begins in the middle of what is seen, and is nudged from there.
      put(hand, { x: view.cx, y: view.cy });
      set({ selected: hand, tool: null });
    }
  };
}
