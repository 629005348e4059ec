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

/** A text that goes to the server when the writer pauses, and is kept in the browser with every letter. */
export function useSavedText(saved: string, about: About) {
  const { lane } = about;
  const [text, setText] = useState(() => {
    const waiting = outbox()
      .unsent(lane)
      .findLast((item) => item.subject === about.subject);
    return (waiting && about.textOf(waiting.post)) ?? saved;
  });
  const now = useRef(about);
  now.current = about;
  return {
    value: text,
    onChange: (event: { target: { value: string } }) => {
      const written = event.target.value;
      setText(written);
      const { subject, what, post } = now.current;
      const made = post(written);
      if (made) outbox().add({ id: crypto.randomUUID(), lane, subject, what, post: made }, PAUSE_MS, true);
    },
    onBlur: () => outbox().hurry(),
  };
}
