import { useRef, useState } from "react";
import { outbox } from "../outbox";
import type { Post } from "../outbox/posts";

const PAUSE_MS = 400;

interface About {
  lane: string;
  subject: string;
  what: string; // in words
  post: (text: string) => Post | null; // null: a text that is not saved, such as an empty title
  textOf: (post: Post) => string | null | undefined;
}

/**
 * A text that goes to the server when the writer pauses, and is kept in the browser with every letter. While
 * nothing was written here, it is what the server has, whenever that changes.
 */
export function useSavedText(saved: string, about: About) {
  const { lane } = about;
  const [written, write] = useState(() => {
    const waiting = outbox()
      .unsent(lane)
      .findLast((item) => item.subject === about.subject);
    return (waiting && about.textOf(waiting.post)) ?? null;
  });
  const now = useRef(about);
  now.current = about;
  return {
    value: written ?? saved,
    onChange: (event: { target: { value: string } }) => {
      write(event.target.value);
      const { subject, what, post } = now.current;
      const made = post(event.target.value);
      if (made) outbox().add({ id: crypto.randomUUID(), lane, subject, what, post: made }, PAUSE_MS, true);
    },
    onBlur: () => outbox().hurry(),
  };
}
