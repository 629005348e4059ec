import { useEffect, useRef, useState } from "react";

const PAUSE_MS = 500;

/** A text that is saved when the writer pauses, and on leaving the field. */
export function useSavedText(saved: string, save: (text: string) => void) {
  const [text, setText] = useState(saved);
  const timer = useRef<number | undefined>(undefined);
  const unsaved = useRef<string | null>(null);
  const keep = useRef(save);
  keep.current = save;
  const flush = useRef(() => {
    window.clearTimeout(timer.current);
    if (unsaved.current !== null) keep.current(unsaved.current);
    unsaved.current = null;
  });
  useEffect(() => {
    const now = flush.current;
    window.addEventListener("pagehide", now);
    return () => {
      window.removeEventListener("pagehide", now);
      now();
    };
  }, []);
  return {
    value: text,
    onChange: (event: { target: { value: string } }) => {
      setText(event.target.value);
      unsaved.current = event.target.value;
      window.clearTimeout(timer.current);
      timer.current = window.setTimeout(flush.current, PAUSE_MS);
    },
    onBlur: flush.current,
  };
}
