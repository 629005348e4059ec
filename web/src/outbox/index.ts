import { create } from "zustand";
import { BACK } from "../api/connection";
import { Outbox, type Told } from "./outbox";
import { deliver, goesTogether, type Post, type Seen } from "./posts";
import { browserShelf } from "./shelf";

type Taken = (lane: string, posts: Post[], answer: unknown) => void;

/** How the outbox stands, for the screens. */
export const useOutbox = create<Told<Post>>(() => ({ saving: "idle", waiting: 0, aside: [], stored: true }));

const listeners = new Set<Taken>();
const shown = new Map<string, () => Seen>();
let box: Outbox<Post> | null = null;
let whose = "";

/** Begin with what this user left unsent in this browser; done once that lies ready. */
export async function openOutbox(user: string): Promise<void> {
  if (whose === user) return;
  whose = user;
  box = new Outbox<Post>(
    (items) => deliver(items, (clipId) => shown.get(clipId)?.() ?? null),
    browserShelf(user),
    {
      told: (told) => useOutbox.setState(told),
      taken: (items, answer) => {
        for (const each of listeners)
          each(
            items[0]?.lane ?? "",
            items.map(({ post }) => post),
            answer,
          );
      },
    },
    goesTogether,
  );
  await box.recall();
}

export function outbox(): Outbox<Post> {
  if (!box) throw new Error("The outbox is opened once it is known who is signed in.");
  return box;
}

/** Hear what the server answers to what it took; returns how to stop. */
export function onTaken(taken: Taken): () => void {
  listeners.add(taken);
  return () => listeners.delete(taken);
}

/** Say what of a clip is on the screen, for as long as it is; returns how to stop. */
export function shows(clipId: string, version: () => Seen): () => void {
  shown.set(clipId, version);
  return () => {
    if (shown.get(clipId) === version) shown.delete(clipId);
  };
}

const hurry = () => box?.hurry();
window.addEventListener(BACK, hurry);
window.addEventListener("focus", hurry);
window.addEventListener("pagehide", hurry);
document.addEventListener("visibilitychange", hurry);
