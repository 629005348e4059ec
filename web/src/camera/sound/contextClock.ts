const LATEST_MS = 10_000; // crystals drift: what was seen longer ago says nothing of now

/**
 * Puts an audio context's clock on the page's own.
 *
 * A block is told a little after it ended, now more, now less: the promptest says most.
 */
export class ContextClock {
  #seen: { now: number; offset: number }[] = [];

  /** A block that ended at a time of the context, seconds, was told now, milliseconds; when that was. */
  ended(end: number, now: number): number {
    this.#seen.push({ now, offset: now - end * 1000 });
    while ((this.#seen[0]?.now ?? now) < now - LATEST_MS) this.#seen.shift();
    return end * 1000 + Math.min(...this.#seen.map(({ offset }) => offset));
  }
}
