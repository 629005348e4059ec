import { useSyncExternalStore } from "react";

/** Whether a condition of the screen holds, such as its width. */
export function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (changed) => {
      const media = window.matchMedia(query);
      media.addEventListener("change", changed);
      return () => media.removeEventListener("change", changed);
    },
    () => window.matchMedia(query).matches,
  );
}
