import type { Schemas } from "../api/client";
import { outbox } from "../outbox";
import { pageLane } from "../outbox/posts";
import type { Practised } from "./unsent";

const TYPING_PAUSE_MS = 600;

/** The day on this reader's calendar, as 2026-11-29. */
export function today(now = new Date()): string {
  return dayOf(now);
}

function dayOf(date: Date): string {
  const two = (part: number) => String(part).padStart(2, "0");
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}

/** The last days up to today, the oldest first: whole weeks that begin on Monday. */
export function weeks(count: number, now = new Date()): string[][] {
  const monday = new Date(now.getFullYear(), now.getMonth(), now.getDate() - ((now.getDay() + 6) % 7));
  return Array.from({ length: count }, (_, week) =>
    Array.from({ length: 7 }, (_, i) =>
      dayOf(new Date(monday.getFullYear(), monday.getMonth(), monday.getDate() - 7 * (count - 1 - week) + i)),
    ),
  );
}

/** Ticks a drill today, or says anew how it went. */
export function tick(token: string, before: Practised | undefined, said: Schemas["Tick"]): void {
  const tickId = before?.id ?? crypto.randomUUID();
  const typing = before !== undefined && before.words !== said.words;
  const item = {
    id: crypto.randomUUID(),
    lane: pageLane(token),
    subject: `tick ${said.drill} ${said.day}`,
    what: "that you practised",
    post: { kind: "tick" as const, token, tickId, tick: said },
  };
  outbox().add(item, typing ? TYPING_PAUSE_MS : 0, typing);
}

/** It was not done after all. */
export function untick(token: string, { id, drill, day }: Practised): void {
  outbox().add({
    id: crypto.randomUUID(),
    lane: pageLane(token),
    subject: `tick ${drill} ${day}`,
    what: "that you did not practise",
    post: { kind: "untick", token, tickId: id, drill, day },
  });
}
