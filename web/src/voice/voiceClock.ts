const LEAD_S = 0.25; // a block is never later than this: a clock without news stands still

/**
 * A recording's own clock: how much of the voice has been taken. Between two blocks it goes on by the audio
 * clock, so that what happens on the screen is timed by what is heard then, not by when a block arrives.
 */
export class VoiceClock {
  #samples = 0;
  #end = 0; // s, on the context's clock, of the last block
  #runs = false;

  constructor(
    readonly rate: number,
    readonly contextTime: () => number,
  ) {}

  get samples(): number {
    return this.#samples;
  }

  /** A block of samples was taken that ended at a time of the context. */
  took(samples: number, end: number): void {
    this.#samples += samples;
    this.#end = end;
    this.#runs = true;
  }

  /** No block is taken from now on, until the next. */
  stand(): void {
    this.#runs = false;
  }

  /** ms since the recording began, without its pauses. It never goes back. */
  now(): number {
    const since = this.#runs ? Math.min(Math.max(this.contextTime() - this.#end, 0), LEAD_S) : 0;
    this.#latest = Math.max(this.#latest, Math.round((this.#samples / this.rate + since) * 1000));
    return this.#latest;
  }
  #latest = 0;
}
