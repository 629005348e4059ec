import { useCallback, useEffect, useRef, useState } from "react";
import type { LastSound } from "../../camera/sound/lastSound";
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

/**
 * Watches live pictures for tries as long as they are there: each is shown once it is over, and kept once it
 * is whole. `videos` are those of all cameras, the first one's first; none while one of them is not there.
 */
export function useTries(
  videos: (HTMLVideoElement | null)[],
  sound: LastSound | null,
  whole: (struck: Struck) => void,
) {
  const [shown, setShown] = useState<{ clips: File[]; at: number } | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const watched = useRef<Watch | null>(null);
  const keep = useRef(whole);
  keep.current = whole;
  const [one = null, other = null] = videos;
  const live = one !== null;
  useEffect(() => {
    const there = [one, other].filter((video) => video !== null);
    if (there.length === 0) return;
    let over = false;
    setError(null);
    watch(
      there,
      {
        swing: (clips, at) => setShown({ clips, at }),
        whole: (struck) => keep.current(struck),
        trouble: setError,
      },
      sound ?? undefined,
    )
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
  }, [one, other, sound]);
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
  return { shown, error, missed: useMissed(live), now, drop: () => setShown(null) };
}

/** What a page that was hidden while it should watch has missed, in words. */
function useMissed(live: boolean): string | null {
  const [missed, setMissed] = useState<string | null>(null);
  useEffect(() => {
    if (!live) return;
    let since = 0;
    const changed = () => {
      if (document.hidden) since = Date.now();
      else if (since)
        setMissed(
          `This page was hidden for ${Math.max(1, Math.round((Date.now() - since) / 1000))} s: a browser films nothing meanwhile.`,
        );
    };
    document.addEventListener("visibilitychange", changed);
    return () => {
      document.removeEventListener("visibilitychange", changed);
      setMissed(null);
    };
  }, [live]);
  return missed;
}
