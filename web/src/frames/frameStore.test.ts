import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { FrameStore } from "./frameStore";
import type { Asked, Told } from "./messages";

const FRAMES = 100;
const TOOK = { reading: 0, decoding: 0, copying: 0 };

/** A worker that does nothing by itself: the test says when it has done what it was asked. */
class Hand extends EventTarget {
  static last: Hand;
  asked: Extract<Asked, { kind: "decode" }>[] = [];
  onmessage: ((event: { data: Told }) => void) | null = null;
  onerror: (() => void) | null = null;
  constructor() {
    super();
    Hand.last = this;
  }
  postMessage(asked: Asked) {
    if (asked.kind === "decode") this.asked.push(asked);
    else this.tell({ kind: "opened", keys: Array(FRAMES).fill(true), bytes: 1024 * 1024 });
  }
  terminate() {}
  tell(told: Told) {
    queueMicrotask(() => this.onmessage?.({ data: told }));
  }
  /** Give all frames of the newest job. */
  async give() {
    const job = this.asked.at(-1);
    if (!job) throw new Error("nothing is asked for");
    for (let number = job.first; number <= job.last; number++) {
      const picture = { number, height: job.height, close: () => undefined } as unknown as ImageBitmap;
      this.tell({ kind: "picture", number, picture, height: job.height, took: TOOK });
    }
    this.tell({ kind: "done", job: job.job });
    await new Promise((turn) => setTimeout(turn));
  }
}

beforeEach(() => {
  vi.stubGlobal("Worker", Hand);
  vi.stubGlobal("navigator", { deviceMemory: 8 });
});
afterEach(() => vi.unstubAllGlobals());

async function opened(first: number) {
  const store = await FrameStore.open("/clip", first);
  if (!store) throw new Error("no store");
  return { store, worker: Hand.last, jobs: () => Hand.last.asked.map(({ first, last }) => [first, last]) };
}

test("frames: the wanted one first, then those in the way of stepping", async () => {
  const { store, worker, jobs } = await opened(40);
  const shown = store.frame(40);
  await worker.give();
  expect(await shown).toMatchObject({ number: 40 });
  await worker.give();
  await worker.give();
  expect(jobs()).toEqual([
    [40, 40],
    [41, 44],
    [45, 48],
    [49, 52],
  ]);
});

test("frames: a step back turns what is decoded ahead round", async () => {
  const { store, worker, jobs } = await opened(40);
  await worker.give();
  store.frame(39, -1);
  expect(jobs().at(-1)).toEqual([39, 39]); // it does not wait for what lies the other way
  await worker.give();
  expect(jobs().at(-1)).toEqual([35, 38]);
});

test("frames: a hand quicker than the decoder still sees what is being decoded", async () => {
  const { store, worker, jobs } = await opened(0);
  await worker.give();
  const [first, second, third] = [store.frame(10), store.frame(20), store.frame(30)];
  await worker.give();
  expect(await first).toMatchObject({ number: 10 });
  expect(await second).toBeUndefined();
  await worker.give();
  expect(await third).toMatchObject({ number: 30 });
  expect(jobs().filter(([a, b]) => a === b)).toEqual([
    [0, 0],
    [10, 10],
    [30, 30],
  ]);
});

test("frames: small pictures come after the wanted frame and before those ahead", async () => {
  const { store, worker, jobs } = await opened(5);
  const small = store.small(80, 96);
  await worker.give();
  await worker.give();
  expect(await small).toMatchObject({ number: 80, height: 96 });
  expect(jobs()).toEqual([
    [5, 5],
    [80, 80],
    [6, 9],
  ]);
  expect(store.cached(80)).toBeUndefined();
});

test("frames: one that cannot be decoded is an error, not a wait without end", async () => {
  const { store, worker } = await opened(5);
  const shown = store.frame(5);
  worker.tell({ kind: "done", job: worker.asked[0]?.job ?? -1 });
  expect(await shown).toBeUndefined();
  await expect(store.frame(6)).rejects.toThrow("Frame 5 cannot be decoded.");
});
