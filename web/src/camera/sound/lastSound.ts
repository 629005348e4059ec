import { type Block, openMicrophone, RATE } from "../../voice/microphone";
import { ContextClock } from "./contextClock";
import { StrikeEar } from "./strikeEar";

const KEPT_S = 9;

/** Sound that was cut out: one channel, and when its first sample was, milliseconds. */
export interface CutSound {
  samples: Int16Array<ArrayBuffer>;
  rate: number;
  from: number;
}

/** The last seconds of what is heard, overwritten as they age; and the strikes in them. */
export class LastSound {
  readonly #ring = new Float32Array(KEPT_S * RATE);
  readonly #clock = new ContextClock();
  readonly #ear = new StrikeEar(RATE);
  #taken = 0; // samples
  #ended = 0; // ms: when the last one was
  struck: (at: number) => void = () => undefined;

  private constructor(
    listen: (heard: (block: Block) => void) => void,
    readonly close: () => void,
  ) {
    listen((block) => this.#hear(block));
  }

  /** What a microphone hears of the room; "" is any. `lost` is called when it is taken away. */
  static async open(device: string, lost: () => void): Promise<LastSound> {
    const microphone = await openMicrophone(device || null, "room");
    microphone.lost(lost);
    return new LastSound(microphone.listen, microphone.close);
  }

  /** What was heard between two times, milliseconds, as far as it is there. */
  cut(from: number, to: number): CutSound | null {
    const sampleOf = (at: number) => this.#taken + Math.round(((at - this.#ended) / 1000) * RATE);
    const first = Math.max(sampleOf(from), this.#taken - this.#ring.length, 0);
    const last = Math.min(sampleOf(to), this.#taken);
    if (last <= first) return null;
    const samples = new Int16Array(last - first);
    for (let i = 0; i < samples.length; i += 1)
      samples[i] = Math.round(
        Math.max(-1, Math.min(1, this.#ring[(first + i) % this.#ring.length] ?? 0)) * 32767,
      );
    return { samples, rate: RATE, from: this.#ended - ((this.#taken - first) / RATE) * 1000 };
  }

  #hear({ samples, end }: Block): void {
    this.#ended = this.#clock.ended(end, performance.now());
    for (const sample of samples) {
      this.#ring[this.#taken % this.#ring.length] = sample;
      this.#taken += 1;
    }
    for (const ago of this.#ear.hear(samples)) this.struck(this.#ended - ago * 1000);
  }
}
