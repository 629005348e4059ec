import { holds, letsGo, mayHold } from "./budget";
import type { Told } from "./messages";
import { type NextJob, nextJob } from "./nextJob";
import { ask, takeWorker } from "./workers";

const NEAR = 2; // a wish so close to the last one is a step, one farther off a jump
const FIRST_JOB = 0;
const QUIET_MS = 250; // after a jump nothing is decoded ahead for so long: another jump would have to wait for it

/**
 * Frames of a proxy by number, decoded by a worker of their own. The frame wanted now goes before
 * frames that may be wanted next.
 */
export class FrameStore {
  readonly exact = "decoded" as const;
  readonly #worker: Worker;
  readonly #keys: boolean[];
  readonly #bytes: number;
  readonly #cache = new Map<number, ImageBitmap>();
  readonly #waiting = new Map<number, ((image: ImageBitmap | undefined) => void)[]>();
  readonly #small = new Map<number, { height: number; done: (picture: ImageBitmap) => void }[]>();
  #wanted: number;
  #job: (NextJob & { id: number; wanted: number }) | null;
  #jobs = FIRST_JOB;
  #direction: 1 | -1 = 1;
  #resting = false;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #failure: Error | null = null;

  private constructor(worker: Worker, keys: boolean[], bytes: number, first: number) {
    this.#worker = worker;
    this.#keys = keys;
    this.#bytes = bytes;
    this.#wanted = first;
    this.#job = { first, last: first, small: false, wanted: first, id: FIRST_JOB };
    holds(this);
    worker.onmessage = ({ data }: MessageEvent<Told>) => this.#hear(data);
    worker.onerror = () => this.#fail(new Error("The clip's decoder broke off."));
  }

  /** The frames of a proxy, the one wanted first under way; null where this browser has no decoder for them. */
  static open(url: string, first: number): Promise<FrameStore | null> {
    const worker = takeWorker();
    const leave = () => worker.terminate();
    return new Promise((opened, failed) => {
      worker.onmessage = ({ data }: MessageEvent<Told>) => {
        if (data.kind === "opened") return opened(new FrameStore(worker, data.keys, data.bytes, first));
        leave();
        if (data.kind === "unable") opened(null);
        else failed(new Error(data.kind === "failed" ? data.message : "The clip cannot be opened."));
      };
      worker.onerror = () => {
        leave();
        failed(new Error("The clip's decoder cannot be loaded. Reload the page."));
      };
      ask(worker, { kind: "open", url });
      ask(worker, { kind: "decode", job: FIRST_JOB, first, last: first, height: null });
    });
  }

  get frameCount(): number {
    return this.#keys.length;
  }

  /** The frame if it is at hand now. */
  cached(number: number): ImageBitmap | undefined {
    return this.#cache.get(number);
  }

  /** The frame, decoded if need be; undefined when another frame was wanted before this one was ready. */
  frame(number: number, direction: 1 | -1 = 1): Promise<ImageBitmap | undefined> {
    if (this.#failure) return Promise.reject(this.#failure);
    if (Math.abs(number - this.#wanted) > NEAR) this.#rest();
    this.#wanted = number;
    this.#direction = direction;
    // What is being decoded now is still worth showing: a quick hand would else see nothing at all.
    for (const [other, waiters] of this.#waiting)
      if (other !== number && other !== this.#job?.wanted) {
        this.#waiting.delete(other);
        for (const done of waiters) done(undefined);
      }
    const have = this.#cache.get(number);
    const answer = have
      ? Promise.resolve(have)
      : new Promise<ImageBitmap | undefined>((done) => {
          this.#waiting.set(number, [...(this.#waiting.get(number) ?? []), done]);
        });
    this.#work();
    return answer;
  }

  /** A small picture of a frame, made when nothing more urgent is wanted. */
  small(number: number, height: number): Promise<ImageBitmap> {
    return new Promise((done) => {
      this.#small.set(number, [...(this.#small.get(number) ?? []), { height, done }]);
      this.#work();
    });
  }

  /** Decode nothing ahead for a while. */
  #rest(): void {
    clearTimeout(this.#timer);
    this.#resting = true;
    this.#timer = setTimeout(() => {
      this.#resting = false;
      this.#work();
    }, QUIET_MS);
  }

  close(): void {
    this.#worker.onmessage = null;
    this.#worker.terminate();
    letsGo(this);
    clearTimeout(this.#timer);
    for (const bitmap of this.#cache.values()) bitmap.close();
    this.#cache.clear();
    this.#answerNobody();
  }

  /** Have the worker do what is most wanted; only a wish that it does not see to already makes it leave a job. */
  #work(): void {
    const wanted = this.#wanted;
    const job = this.#job;
    // A frame that somebody waited for comes first: a quick hand would else never see any.
    if (job && (this.#cache.has(wanted) || gives(job, wanted) || gives(job, job.wanted))) return;
    const [small] = this.#small.keys();
    const reach = Math.floor(mayHold(this.#bytes) / 2);
    const next = nextJob({
      wanted,
      direction: this.#direction,
      resting: this.#resting,
      has: (frame) => this.#cache.has(frame),
      count: this.frameCount,
      reach,
      small,
    });
    if (!next) return;
    const { first, last } = next;
    const height = next.small ? (this.#small.get(first)?.[0]?.height ?? null) : null;
    this.#job = { ...next, wanted, id: ++this.#jobs };
    ask(this.#worker, { kind: "decode", job: this.#jobs, first, last, height });
  }

  #hear(told: Told): void {
    if (told.kind === "picture") this.#keep(told.number, told.picture, told.height);
    else if (told.kind === "done") this.#finish(told.job);
    else if (told.kind === "failed") this.#fail(new Error(told.message));
  }

  /** A job that no later one took the place of has given all that it can. */
  #finish(id: number): void {
    const job = this.#job;
    if (job?.id !== id) return;
    this.#job = null;
    if (job.small) this.#small.delete(job.first);
    if (gives(job, job.wanted) && !this.#cache.has(job.wanted)) {
      this.#fail(new Error(`Frame ${job.wanted} cannot be decoded.`));
      return;
    }
    this.#evict();
    this.#work();
  }

  #keep(number: number, picture: ImageBitmap, height: number | null): void {
    if (height !== null) {
      const asked = this.#small.get(number) ?? [];
      this.#small.delete(number);
      for (const { done } of asked) done(picture);
      return;
    }
    this.#cache.get(number)?.close();
    this.#cache.set(number, picture);
    for (const done of this.#waiting.get(number) ?? []) done(picture);
    this.#waiting.delete(number);
  }

  #evict(): void {
    const wanted = this.#wanted;
    const farFirst = [...this.#cache.keys()].sort((a, b) => Math.abs(b - wanted) - Math.abs(a - wanted));
    for (const number of farFirst.slice(0, Math.max(0, this.#cache.size - mayHold(this.#bytes)))) {
      this.#cache.get(number)?.close();
      this.#cache.delete(number);
    }
  }

  #fail(error: Error): void {
    this.#failure = error;
    this.#answerNobody();
  }

  #answerNobody(): void {
    for (const waiters of this.#waiting.values()) for (const done of waiters) done(undefined);
    this.#waiting.clear();
  }
}

/** Whether a job gives a frame itself. */
function gives({ first, last, small }: NextJob, frame: number): boolean {
  return !small && first <= frame && frame <= last;
}
