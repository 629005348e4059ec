import { type RefObject, useCallback, useEffect, useRef, useState } from "react";
import { watch } from "../camera/watching";
import { countDown } from "./countDown";

const COUNT_S = 5;

/** Watches for swings once it is told to; each is shown as soon as it is over, until the next is wanted. */
export function useWatching(video: RefObject<HTMLVideoElement | null>, live: boolean) {
  const [on, setOn] = useState(false);
  const [left, setLeft] = useState<number | null>(null);
  const [shown, setShown] = useState<File | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const end = useRef<() => void>(() => undefined);
  const stop = useCallback(() => {
    end.current();
    end.current = () => undefined;
    setOn(false);
    setLeft(null);
  }, []);
  const start = useCallback(async () => {
    const { current } = video;
    if (!current) return;
    let told = false; // to stop, before it has begun
    end.current = () => {
      told = true;
    };
    try {
      const { stop: over } = await watch([current], {
        swing: ([seen]) => {
          stop();
          setShown(seen?.clip ?? null);
        },
        trouble: (trouble) => {
          stop();
          setError(trouble);
        },
      });
      if (told) over();
      else end.current = over;
    } catch (trouble) {
      stop();
      setError(trouble as Error);
    }
  }, [video, stop]);
  const begin = useCallback(async () => {
    setError(null);
    setShown(null);
    setOn(true);
    const count = countDown(COUNT_S, setLeft);
    end.current = count.stop;
    await count.over;
    setLeft(null);
    await start();
  }, [start]);
  const goOn = useCallback(async () => {
    setError(null);
    setShown(null);
    setOn(true);
    await start();
  }, [start]);
  useEffect(() => {
    if (!live) stop();
    return stop;
  }, [live, stop]);
  const words = shown
    ? "Your last swing, a quarter as fast. It is on this phone alone."
    : left !== null
      ? "Stand to the ball; it watches when the high tone comes."
      : on
        ? "It watches: swing. The last seconds are held, nothing else."
        : "Only a mirror: nothing is kept. Drag the lines to where they should stand.";
  return {
    on,
    left,
    shown,
    error,
    words,
    begin,
    goOn: () => void goOn(),
    stop,
    drop: () => setShown(null),
  };
}
