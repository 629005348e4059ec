const LOW_HZ = 1500; // wind and voices lie below
const WINDOW_S = 0.002;
const USUAL_S = 2; // what is usually heard is heard over so long
const OVER_USUAL = 12; // times as loud; a strike is 20 and more
const LEAST = 0.004; // of what a microphone can hear: in a silent room all is loud
const RISE_S = 0.02; // from its first sound to its loudest
const APART_S = 0.35; // an echo comes sooner

/**
 * Hears strikes in what a microphone hands on: sharp sounds that stand out.
 *
 * As the server hears them in a file (tropometer/video/strike.py), but while they sound.
 */
export class StrikeEar {
  readonly #window: number;
  readonly #passes: HighPass[];
  #square = 0;
  #taken = 0;
  #loud: number[] = []; // of the latest windows, the newest last
  #usual = 0;
  #rising: { windows: number[]; first: number } | null = null;
  #deaf = 0; // windows for which what follows is an echo
  #count = 0;

  constructor(readonly rate: number) {
    this.#window = Math.round(WINDOW_S * rate);
    this.#passes = [new HighPass(LOW_HZ, rate), new HighPass(LOW_HZ, rate)];
  }

  /** Samples that follow on those before; the strikes heard, seconds before the end of these samples. */
  hear(samples: Float32Array): number[] {
    const found: number[] = []; // windows, counted from the first
    for (const sample of samples) {
      const sharp = this.#passes.reduce((value, pass) => pass.next(value), sample);
      this.#square += sharp * sharp;
      this.#taken += 1;
      if (this.#taken < this.#window) continue;
      const struck = this.#step(Math.sqrt(this.#square / this.#window));
      if (struck !== null) found.push(struck);
      this.#square = 0;
      this.#taken = 0;
    }
    const sorted = [...this.#loud].sort((a, b) => a - b);
    this.#usual = sorted[sorted.length >> 1] ?? 0;
    return found.map((at) => ((this.#count - at) * this.#window + this.#taken) / this.rate);
  }

  #step(loud: number): number | null {
    this.#count += 1;
    this.#loud.push(loud);
    if (this.#loud.length > USUAL_S / WINDOW_S) this.#loud.shift();
    if (this.#deaf > 0) this.#deaf -= 1;
    if (this.#rising) {
      this.#rising.windows.push(loud);
      if (this.#rising.windows.length < RISE_S / WINDOW_S) return null;
      const { windows, first } = this.#rising;
      this.#rising = null;
      this.#deaf = APART_S / WINDOW_S;
      const peak = Math.max(...windows);
      return first + windows.findIndex((each) => each > peak / 3);
    }
    const settled = this.#loud.length > USUAL_S / WINDOW_S / 4; // it has heard what is usual
    if (settled && this.#deaf <= 0 && loud > Math.max(LEAST, OVER_USUAL * this.#usual))
      this.#rising = { windows: [loud], first: this.#count - 1 };
    return null;
  }
}

/** A second-order high pass (R. Bristow-Johnson, Cookbook formulae for audio EQ biquads; from memory). */
class HighPass {
  #x1 = 0;
  #x2 = 0;
  #y1 = 0;
  #y2 = 0;
  readonly #b: number;
  readonly #a1: number;
  readonly #a2: number;

  constructor(hz: number, rate: number) {
    const turn = (2 * Math.PI * hz) / rate;
    const alpha = Math.sin(turn) / Math.SQRT2;
    const whole = 1 + alpha;
    this.#b = (1 + Math.cos(turn)) / 2 / whole;
    this.#a1 = (-2 * Math.cos(turn)) / whole;
    this.#a2 = (1 - alpha) / whole;
  }

  next(x: number): number {
    const y = this.#b * (x - 2 * this.#x1 + this.#x2) - this.#a1 * this.#y1 - this.#a2 * this.#y2;
    this.#x2 = this.#x1;
    this.#x1 = x;
    this.#y2 = this.#y1;
    this.#y1 = y;
    return y;
  }
}
