import { type RefObject, useLayoutEffect, useState } from "react";
import type { Size } from "../drawn/stageView";

/** The size of an element in CSS px, kept true as it changes. */
export function useSize(of: RefObject<Element | null>): Size {
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = of.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [of]);
  return size;
}
