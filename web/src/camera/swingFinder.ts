/** A swing that was found in how much the picture moves; milliseconds. */
export interface Found {
  from: number;
  top: number; // where it moved most
  to: number;
}

const REST_SHARE = 0.1; // of what is new that goes into how much a picture moves at rest
const LEAST_MOTION = 3; // grey levels, of 255, where it moves most: a phone's own noise is less
const OVER_REST = 2;
const LEAST_PEAK = 10;
const PEAK_OVER_REST = 4;
const LEAST_GROWING_MS = 200; // a light that is switched on, or a knocked stand, is at its most at once
const FALLEN = 0.4; // of its peak: the swing is over
const FALLEN_MS = 250;
const AT_THE_TOP_MS = 600; // so long nothing may move there: before the way down it is not over
const LONGEST_MS = 4500; // whoever moves longer walks about
const BEFORE_MS = 1900; // back and down take so long at most before the fastest moment
const AFTER_MS = 700;

/**
 * Finds swings in a live picture: stillness, going back, the stop at the top, a faster way down, and a fall.
 *
 * How fast somebody moves about is not known beforehand, so all is measured against the picture's own rest.
 */
export class SwingFinder {
  #rest = LEAST_MOTION / 2;
  #began: number | null = null;
  #walking = false;
  #peak = 0;
  #top = 0;
  #dipped = false; // below half of what it moved at most
  #down = false; // faster again after that
  #fallen: number | null = null;

  /** What is seen at a time; a swing as soon as it is over. */
  see(time: number, motion: number): Found | null {
    const moving = motion > Math.max(LEAST_MOTION, this.#rest * OVER_REST);
    if (!moving) this.#rest += REST_SHARE * (motion - this.#rest);
    if (this.#walking) {
      this.#walking = moving;
      return null;
    }
    if (this.#began === null) {
      if (!moving) return null;
      this.#began = time;
    }
    this.#follow(time, motion);
    if (time - this.#began > LONGEST_MS) {
      this.#walking = true;
      return this.#forget();
    }
    if (this.#fallen === null || time - this.#fallen < (this.#down ? FALLEN_MS : AT_THE_TOP_MS)) return null;
    const strong =
      this.#peak > Math.max(LEAST_PEAK, this.#rest * PEAK_OVER_REST) &&
      this.#top - this.#began >= LEAST_GROWING_MS;
    const found = { from: this.#top - BEFORE_MS, top: this.#top, to: Math.min(time, this.#top + AFTER_MS) };
    this.#forget();
    return strong ? found : null;
  }

  #follow(time: number, motion: number): void {
    if (motion < this.#peak / 2) this.#dipped = true;
    if (motion >= this.#peak) {
      if (this.#dipped) this.#down = true;
      this.#peak = motion;
      this.#top = time;
    }
    if (motion > this.#peak * FALLEN) this.#fallen = null;
    else this.#fallen ??= time;
  }

  #forget(): null {
    this.#began = null;
    this.#peak = 0;
    this.#dipped = false;
    this.#down = false;
    this.#fallen = null;
    return null;
  }
}

const MOVES_MOST = 0.05; // of the picture: a player who is small in it moves little of it

/** How much two small grey pictures differ where they differ most, grey levels on average. */
export function motionBetween(before: Uint8Array, now: Uint8Array): number {
  const differ = now.map((grey, i) => Math.abs(grey - (before[i] ?? 0))).sort();
  const most = differ.subarray(-Math.max(1, Math.round(differ.length * MOVES_MOST)));
  return most.reduce((sum, each) => sum + each, 0) / most.length;
}

/** A small picture's greys (ITU-R BT.601 weights) from its red, green, blue and opacity. */
export function greys(pixels: Uint8ClampedArray): Uint8Array {
  const found = new Uint8Array(pixels.length / 4);
  for (let i = 0; i < found.length; i += 1)
    found[i] =
      0.299 * (pixels[4 * i] ?? 0) + 0.587 * (pixels[4 * i + 1] ?? 0) + 0.114 * (pixels[4 * i + 2] ?? 0);
  return found;
}
