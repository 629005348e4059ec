import { type RefObject, useCallback, useEffect, useRef, useState } from "react";

export const PACES: number[] = [0.75, 1, 1.25, 1.5];

/** A voice that plays: it is the clock of all that is seen. */
export interface Voice {
  ms: number;
  playing: boolean;
  waiting: boolean; // for more of it to come
  muted: boolean;
  pace: number;
  failed: boolean;
  turn: () => void; // play or stand
  goTo: (ms: number) => void;
  setPace: (pace: number) => void;
  setMuted: (muted: boolean) => void;
}

/** Watches an audio element, picture by picture while it plays. */
export function useVoice(audio: RefObject<HTMLAudioElement | null>, begin = false): Voice {
  const [ms, setMs] = useState(0);
  const [playing, setPlaying] = useState(false);
  const [waiting, setWaiting] = useState(false);
  const [muted, mute] = useState(false);
  const [pace, setPace] = useState(1);
  const [failed, setFailed] = useState(false);
  const asked = useRef(0);

  useEffect(() => {
    const voice = audio.current;
    if (!voice) return;
    const look = () => setMs(voice.currentTime * 1000);
    const follow = () => {
      look();
      asked.current = requestAnimationFrame(follow);
    };
    const heard: Record<string, () => void> = {
      play: () => {
        setPlaying(true);
        cancelAnimationFrame(asked.current);
        follow();
      },
      pause: () => {
        setPlaying(false);
        cancelAnimationFrame(asked.current);
        look();
      },
      seeked: look,
      waiting: () => setWaiting(true),
      playing: () => setWaiting(false),
      canplay: () => setWaiting(false),
      error: () => setFailed(true),
      volumechange: () => mute(voice.muted || voice.volume === 0),
    };
    for (const [name, each] of Object.entries(heard)) voice.addEventListener(name, each);
    // Where the browser wants one more press, the button is there.
    if (begin) void voice.play().catch(() => undefined);
    return () => {
      cancelAnimationFrame(asked.current);
      for (const [name, each] of Object.entries(heard)) voice.removeEventListener(name, each);
    };
  }, [audio, begin]);

  const turn = useCallback(() => {
    const voice = audio.current;
    if (!voice) return;
    if (voice.paused) void voice.play().catch(() => setFailed(true));
    else voice.pause();
  }, [audio]);
  const goTo = useCallback(
    (to: number) => {
      if (audio.current) audio.current.currentTime = to / 1000;
      setMs(to);
    },
    [audio],
  );
  return {
    ms,
    playing,
    waiting,
    muted,
    pace,
    failed,
    turn,
    goTo,
    setPace: (to) => {
      if (audio.current) audio.current.playbackRate = to;
      setPace(to);
    },
    setMuted: (to) => {
      if (audio.current) audio.current.muted = to;
      mute(to);
    },
  };
}
