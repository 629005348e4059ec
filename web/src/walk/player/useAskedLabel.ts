import { type MouseEvent, useEffect, useState } from "react";

const NEAR_PX = 14; // about a label: a finger is broader than its words

/** The gauge whose label was tapped last on a stage; a tap elsewhere, or another frame, asks for nothing. */
export function useAskedLabel(frame: number) {
  const [asked, ask] = useState<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another frame has other words
  useEffect(() => ask(null), [frame]);
  const onClick = (event: MouseEvent<HTMLElement>) => {
    const far = (label: Element) => {
      const { left, right, top, bottom } = (label.querySelector("rect") ?? label).getBoundingClientRect();
      const { clientX: x, clientY: y } = event;
      return Math.hypot(Math.max(left - x, x - right, 0), Math.max(top - y, y - bottom, 0));
    };
    const labels = [...event.currentTarget.querySelectorAll<SVGElement>("[data-span]")];
    const nearest = labels.toSorted((a, b) => far(a) - far(b))[0];
    ask(nearest && far(nearest) <= NEAR_PX ? (nearest.dataset.span ?? null) : null);
  };
  return { asked, onClick };
}
