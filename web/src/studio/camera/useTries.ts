import { type RefObject, useCallback, useEffect, useRef, useState } from "react";
import { type Struck, type Watch, watch } from "../../camera/watching";

// Keys that mean something else; every other key, or a pedal that types one, says that a ball was struck.
const OTHERWISE = new Set(["Tab", "Escape", "Enter", "Shift", "Control", "Alt", "Meta", "CapsLock"]);
const TYPED_IN = "input, textarea, select, [contenteditable], [role=dialog]";
// These work a button or scroll a part of the page that is in hand.
const WORKS = new Set([
  " ",
  "ArrowUp",
  "ArrowDown",
  "ArrowLeft",
  "ArrowRight",
  "PageUp",
  "PageDown",
  "Home",
  "End",
]);
const IN_HAND = "button, a, [tabindex='0']";

/** Watches a live picture for tries as long as it is there: each is shown once it is over, and kept once it is whole. */
export function useTries(
  video: RefObject<HTMLVideoElement | null>,
  live: boolean,
  whole: (struck: Struck) => void,
) {
  const [shown, setShown] = useState<{ clip: File; at: number } | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const watched = useRef<Watch | null>(null);
  const keep = useRef(whole);
  keep.current = whole;
  useEffect(() => {
    const { current } = video;
    if (!live || !current) return;
    let over = false;
    setError(null);
    watch(current, {
      swing: (clip, at) => setShown({ clip, at }),
      whole: (struck) => keep.current(struck),
      trouble: setError,
    })
      .then((made) => {
        if (over) made.stop();
        else watched.current = made;
      })
      .catch((trouble: Error) => !over && setError(trouble));
    return () => {
      over = true;
      watched.current?.stop();
      watched.current = null;
    };
  }, [video, live]);
  const now = useCallback(() => watched.current?.now(), []);
  useEffect(() => {
    if (!live) return;
    const typed = (event: KeyboardEvent) => {
      if (event.repeat || event.ctrlKey || event.metaKey || event.altKey || OTHERWISE.has(event.key)) return;
      const at = event.target instanceof Element ? event.target : document.body;
      if (at.closest(TYPED_IN) || (WORKS.has(event.key) && at.closest(IN_HAND))) return;
      event.preventDefault();
      now();
    };
    window.addEventListener("keydown", typed);
    return () => window.removeEventListener("keydown", typed);
  }, [live, now]);
  return { shown, error, now, drop: () => setShown(null) };
}
