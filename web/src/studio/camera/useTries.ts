import { useCallback, useEffect, useRef, useState } from "react";
import type { LastSound } from "../../camera/sound/lastSound";
import { type Shown, type Struck, type Watch, watch } from "../../camera/watching";

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
 * is whole. `videos` are those of all cameras, the first one's first; null is one that is not there: what others
 * see goes on. What is told names a camera by its place among all.
 */
export function useTries(
  videos: (HTMLVideoElement | null)[],
  sound: LastSound | null,
  whole: (struck: Struck) => void,
) {
  const [shown, setShown] = useState<{ seen: Shown[]; at: number } | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [watched, setWatched] = useState<Watch | null>(null); // once it has seen a picture
  const keep = useRef(whole);
  keep.current = whole;
  const [one = null, other = null] = videos;
  const live = one !== null || other !== null;
  useEffect(() => {
    const there = [one, other].flatMap((video, place) => (video ? { video, place } : []));
    const placed = <T extends { camera: number }>(told: T): T => ({
      ...told,
      camera: there[told.camera]?.place ?? 0,
    });
    if (there.length === 0) return;
    let over = false;
    setError(null);
    let made: Watch | null = null;
    watch(
      there.map(({ video }) => video),
      {
        swing: (seen, at) => setShown({ seen: seen.map(placed), at }),
        whole: (struck) => keep.current(placed(struck)),
        trouble: setError,
      },
    )
      .then(async (watching) => {
        made = watching;
        if (over) made.stop();
        await made.begun;
        if (!over) setWatched(made);
      })
      .catch((trouble: Error) => !over && setError(trouble));
    return () => {
      over = true;
      made?.stop();
      setWatched(null);
    };
  }, [one, other]);
  useEffect(() => watched?.hear(sound), [watched, sound]);
  const now = useCallback(() => watched?.now(), [watched]);
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
  return {
    shown,
    error,
    missed: useMissed(live),
    watching: watched !== null,
    now,
    drop: () => setShown(null),
  };
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
