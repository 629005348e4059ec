/**
 * What was made here and the server does not have yet. Everything is sent at once and stored beside, so that a
 * dropped connection, a closed tab, a full storage or a crashed server loses nothing. Items of one lane go in
 * their order; lanes do not wait for each other. What the server will never take is set aside with its reason and
 * is in nobody's way.
 *
 * A killed browser may find an old list again, of things that have arrived since and were followed by newer ones.
 * So the server takes each id once, and no item goes before it has the ids of all that were made before it: one
 * that was never tried gives its id to the item that replaces it, one that was tried stays in its place.
 */

export interface Item<Post> {
  id: string;
  lane: string; // things that must reach the server in order
  subject: string; // a later item about the same thing replaces one that was never tried
  what: string; // in words, for the case that it is set aside
  post: Post;
}

export interface Aside<Post> extends Item<Post> {
  reason: string;
}

/** How a delivery ended: taken, refused for good with the reason, or to be tried again. */
export type Outcome =
  | { kind: "taken"; answer: unknown }
  | { kind: "refused"; reason: string }
  | { kind: "later"; because: "offline" | "signed-out" | "trouble"; reason: string };

export type Saving = "idle" | "saved" | "saving" | "offline" | "signed-out" | "trouble";

export interface Told<Post> {
  saving: Saving;
  waiting: number;
  aside: Aside<Post>[];
  stored: boolean; // false: the browser would not keep it, so this tab must stay open
}

/** Where items are kept beside: one list a tab. */
export interface Shelf<Post> {
  /** What this tab and tabs that are gone have left. */
  recall: () => Promise<Kept<Post>>;
  /** False when it could not be kept. */
  keep: (kept: Kept<Post>) => boolean;
}

export interface Kept<Post> {
  waiting: Item<Post>[];
  aside: Aside<Post>[];
}

interface Lane<Post> {
  tried: Set<string>; // ids of what the server may have
  waiting: Item<Post>[];
  sending: Item<Post>[];
  tries: number;
  singly: boolean; // after a refusal: find the one item that the server will not take
  timer: ReturnType<typeof setTimeout> | undefined;
  held: (Outcome & { kind: "later" }) | null;
}

const RETRY_MS = [500, 1000, 2000, 4000, 8000];
const SERVER_TRIES = 4; // of an item at which the server breaks, before it is set aside
const MOST_AT_ONCE = 500;

export class Outbox<Post> {
  #lanes = new Map<string, Lane<Post>>();
  #aside: Aside<Post>[] = [];
  #anySaved = false;
  #stored = true;

  constructor(
    readonly deliver: (items: Item<Post>[]) => Promise<Outcome>,
    readonly shelf: Shelf<Post>,
    readonly heard: {
      told: (told: Told<Post>) => void;
      taken: (items: Item<Post>[], answer: unknown) => void;
    },
    readonly together: (lane: string) => boolean = () => true, // whether a lane's items go in one request
  ) {}

  /** Go on with what this browser has kept; what another tab sends too is done once. */
  async recall(): Promise<void> {
    const kept = await this.shelf.recall();
    this.#aside = [...kept.aside, ...this.#aside];
    for (const name of new Set(kept.waiting.map((item) => item.lane))) {
      const lane = this.#lane(name);
      const left = kept.waiting.filter((item) => item.lane === name);
      for (const { id } of left) lane.tried.add(id);
      lane.waiting = [...left, ...lane.waiting];
      this.#flush(name, 0);
    }
    this.#changed();
  }

  /** Items of a lane that the server may not have yet, oldest first. */
  unsent(lane: string): Item<Post>[] {
    const { sending, waiting } = this.#lane(lane);
    return [...sending, ...waiting];
  }

  /** Take an item in. It goes after a pause; one that `settles` waits until nothing new has come for so long. */
  add(item: Item<Post>, pauseMs = 0, settles = false): void {
    const lane = this.#lane(item.lane);
    const replaced = lane.waiting.find(({ id, subject }) => subject === item.subject && !lane.tried.has(id));
    const others = lane.waiting.filter((other) => other !== replaced);
    lane.waiting = [...others, { ...item, id: replaced?.id ?? item.id }];
    this.#changed();
    if (settles && lane.held === null) {
      clearTimeout(lane.timer);
      lane.timer = undefined;
    }
    this.#flush(item.lane, pauseMs);
  }

  /** Try everything at once: the connection is back, somebody signed in, the tab is looked at again or left. */
  hurry(): void {
    for (const [name, lane] of this.#lanes) {
      clearTimeout(lane.timer);
      lane.timer = undefined;
      if (!lane.sending.length) void this.#send(name, lane);
    }
  }

  /** Put an item that was set aside into its lane once more. */
  tryAgain(id: string): void {
    const found = this.#aside.find((item) => item.id === id);
    if (!found) return;
    this.drop(id);
    const { reason: _, ...item } = found;
    const lane = this.#lane(item.lane);
    lane.tried.add(item.id);
    lane.waiting.push(item);
    this.#changed();
    this.#flush(item.lane, 0);
  }

  /** Let go of an item that was set aside. */
  drop(id: string): void {
    this.#aside = this.#aside.filter((item) => item.id !== id);
    this.#changed();
  }

  #lane(name: string): Lane<Post> {
    let lane = this.#lanes.get(name);
    if (!lane) {
      lane = {
        tried: new Set(),
        waiting: [],
        sending: [],
        tries: 0,
        singly: false,
        timer: undefined,
        held: null,
      };
      this.#lanes.set(name, lane);
    }
    return lane;
  }

  #flush(name: string, delayMs: number): void {
    const lane = this.#lane(name);
    if (lane.timer !== undefined || lane.sending.length || !lane.waiting.length) return;
    lane.timer = setTimeout(() => {
      lane.timer = undefined;
      void this.#send(name, lane);
    }, delayMs);
  }

  async #send(name: string, lane: Lane<Post>): Promise<void> {
    const count = lane.singly || !this.together(name) ? 1 : MOST_AT_ONCE;
    lane.sending = lane.waiting.slice(0, count);
    lane.waiting = lane.waiting.slice(count);
    if (!lane.sending.length) return;
    for (const { id } of lane.sending) lane.tried.add(id);
    const outcome = await this.deliver(lane.sending);
    const sent = lane.sending;
    if (outcome.kind === "taken") {
      lane.sending = [];
      for (const { id } of sent) lane.tried.delete(id);
      lane.tries = 0;
      lane.held = null;
      this.#anySaved = true;
      if (!lane.waiting.length) lane.singly = false;
      this.#changed();
      this.heard.taken(sent, outcome.answer);
      this.#flush(name, 0);
    } else if (outcome.kind === "refused") this.#refused(name, lane, outcome.reason);
    else this.#later(name, lane, outcome);
  }

  /** The server will never take one of these: find it, set it aside, and let the others through. */
  #refused(name: string, lane: Lane<Post>, reason: string): void {
    const [first, ...others] = lane.sending;
    lane.held = null;
    lane.tries = 0;
    if (others.length) {
      lane.singly = true;
      lane.waiting = [...lane.sending, ...lane.waiting];
    } else if (first) this.#aside = [...this.#aside, { ...first, reason }];
    lane.sending = [];
    this.#changed();
    this.#flush(name, 0);
  }

  #later(name: string, lane: Lane<Post>, outcome: Outcome & { kind: "later" }): void {
    lane.tries += 1;
    if (outcome.because === "trouble" && lane.tries >= SERVER_TRIES) {
      this.#refused(name, lane, outcome.reason);
      return;
    }
    lane.waiting = [...lane.sending, ...lane.waiting];
    lane.sending = [];
    lane.held = outcome;
    this.#changed();
    this.#flush(name, RETRY_MS[Math.min(lane.tries, RETRY_MS.length) - 1] ?? 8000);
  }

  #changed(): void {
    const lanes = [...this.#lanes.values()];
    const waiting = lanes.flatMap((lane) => [...lane.sending, ...lane.waiting]);
    this.#stored = this.shelf.keep({ waiting, aside: this.#aside });
    const held = lanes.map((lane) => lane.held?.because);
    const saving: Saving = held.includes("signed-out")
      ? "signed-out"
      : held.includes("offline")
        ? "offline"
        : held.includes("trouble")
          ? "trouble"
          : waiting.length
            ? "saving"
            : this.#anySaved
              ? "saved"
              : "idle";
    this.heard.told({ saving, waiting: waiting.length, aside: this.#aside, stored: this.#stored });
  }
}
