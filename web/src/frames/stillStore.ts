import type { FrameSource } from "./source";

const AHEAD = 4;
const MOST_CACHED = 60;

/**
 * Frames by number as the server's own stills, for browsers that cannot decode them: slower, and just
 * as exact. One frame wanted at a time; the next few in the way of stepping are fetched after it.
 */
export class StillStore {
  readonly exact = "stills" as const;
  readonly #cache = new Map<number, ImageBitmap>();
  readonly #coming = new Map<number, Promise<ImageBitmap | undefined>>();
  #wanted = 0;
  #closed = false;

  readonly frameCount: number;

  constructor(readonly source: FrameSource) {
    this.frameCount = source.frame_count;
  }

  cached(number: number): ImageBitmap | undefined {
    return this.#cache.get(number);
  }

  async frame(number: number, direction: 1 | -1 = 1): Promise<ImageBitmap | undefined> {
    this.#wanted = number;
    const bitmap = await this.#fetch(number);
    if (this.#wanted !== number) return undefined;
    for (let step = 1; step <= AHEAD; step++) {
      const next = number + step * direction;
      if (next >= 0 && next < this.frameCount) void this.#fetch(next).catch(() => undefined);
    }
    return bitmap;
  }

  /** A small picture of a frame, made by the server. */
  async small(number: number, height: number): Promise<ImageBitmap> {
    const answer = await fetch(this.source.still(number, height));
    if (!answer.ok) throw new Error(`Frame ${number} cannot be fetched (${answer.status}).`);
    return createImageBitmap(await answer.blob());
  }

  close(): void {
    this.#closed = true;
    for (const bitmap of this.#cache.values()) bitmap.close();
    this.#cache.clear();
  }

  #fetch(number: number): Promise<ImageBitmap | undefined> {
    const have = this.#cache.get(number);
    if (have) return Promise.resolve(have);
    const coming = this.#coming.get(number) ?? this.#load(number);
    this.#coming.set(number, coming);
    return coming;
  }

  async #load(number: number): Promise<ImageBitmap | undefined> {
    try {
      const answer = await fetch(this.source.still(number));
      if (!answer.ok) throw new Error(`Frame ${number} cannot be fetched (${answer.status}).`);
      const bitmap = await createImageBitmap(await answer.blob());
      if (this.#closed) {
        bitmap.close();
        return undefined;
      }
      this.#cache.set(number, bitmap);
      this.#evict();
      return bitmap;
    } finally {
      this.#coming.delete(number);
    }
  }

  #evict(): void {
    const farFirst = [...this.#cache.keys()].sort(
      (a, b) => Math.abs(b - this.#wanted) - Math.abs(a - this.#wanted),
    );
    for (const number of farFirst.slice(0, Math.max(0, this.#cache.size - MOST_CACHED))) {
      this.#cache.get(number)?.close();
      this.#cache.delete(number);
    }
  }
}
