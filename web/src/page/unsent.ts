import type { Schemas } from "../api/client";
import type { Post } from "../outbox/posts";

type Page = Schemas["OwnPageOut"];
export type Practised = Schemas["PractisedOut"];
export type Message = Schemas["MessageOut"] & { waits?: boolean }; // not with the server yet

/** A page with what was done on it here and the server does not have yet. */
export function withUnsent(page: Page, posts: Post[]): Omit<Page, "messages"> & { messages: Message[] } {
  let practised = page.practised;
  const messages: Message[] = [...page.messages];
  for (const post of posts) {
    if (post.kind === "tick") {
      const { drill, day, step = 0, places = [], words = "" } = post.tick;
      const before = practised.find((each) => each.drill === drill && each.day === day);
      const tick: Practised = {
        id: before?.id ?? post.tickId,
        drill,
        day,
        step,
        places,
        words,
        name: nameOf(page, drill),
        speaks_up: before?.speaks_up ?? false,
        ticked_at: before?.ticked_at ?? new Date().toISOString(),
      };
      practised = [tick, ...practised.filter((each) => each !== before)];
    }
    if (post.kind === "untick")
      practised = practised.filter((each) => each.drill !== post.drill || each.day !== post.day);
    if (post.kind === "ask" && !messages.some(({ id }) => id === post.message.id))
      messages.push({
        id: post.message.id,
        side: "student",
        words: post.message.words ?? "",
        voice_ms: 0,
        said_at: new Date().toISOString(),
        seen_at: null,
        settled_at: null,
        lesson_id: post.message.lesson_id ?? null,
        waits: true,
      });
  }
  return { ...page, practised, messages };
}

function nameOf(page: Page, drill: string): string {
  const all = page.focus.flatMap((focus) => focus.drills);
  return all.find(({ id }) => id === drill)?.name ?? "";
}
