import { type Cut, LastSeconds } from "./lastSeconds";
import type { CutSound } from "./sound/lastSound";
import { type Found, greys, motionBetween, SwingFinder } from "./swingFinder";

const SMALL_WIDE = 64;
const SMALL_HIGH = 48;
const KNOWN_MS = 3000;

interface Told {
  swing: (found: Found) => void;
  trouble: (error: Error) => void;
}

/** One live picture that is looked at for swings; its last seconds are kept meanwhile. */
export class Eye {
  latest = 0; // ms: when the latest picture was
  readonly begun: Promise<void>; // it has seen a picture
  #begin: () => void = () => undefined;
  #before: Uint8Array | null = null;
  #finder = new SwingFinder();
  #motions: { at: number; motion: number }[] = [];
  #over = false;

  private constructor(
    readonly video: HTMLVideoElement,
    readonly last: LastSeconds,
    readonly small: OffscreenCanvasRenderingContext2D,
    readonly told: Told,
  ) {
    this.begun = new Promise((begin) => {
      this.#begin = begin;
    });
    video.requestVideoFrameCallback((shown, about) => this.#look(shown, about));
  }

  static async open(video: HTMLVideoElement, told: Told): Promise<Eye> {
    const last = await LastSeconds.open(video.videoWidth, video.videoHeight);
    if (!last)
      throw new Error(
        "This browser shows the lines, but cannot keep a clip. Another one, or a newer one, can.",
      );
    const small = new OffscreenCanvas(SMALL_WIDE, SMALL_HIGH).getContext("2d", { willReadFrequently: true });
    if (!small) throw new Error("This browser cannot look at its own picture.");
    small.imageSmoothingQuality = "high"; // else one pixel's noise stands for twenty pixels
    return new Eye(video, last, small, told);
  }

  /** In how many pictures between two times something moved by so much at least. */
  moving(from: number, to: number, least: number): number {
    return this.#motions.filter(({ at, motion }) => at >= from && at <= to && motion >= least).length;
  }

  /** What was seen between two times, milliseconds. */
  cut(from: number, to: number, name: string, sound: CutSound | null): Promise<Cut | null> {
    return this.last.cut(from * 1000, to * 1000, name, sound);
  }

  /** Look no more; what was seen can still be cut, until it is closed. */
  stop(): void {
    this.#over = true;
  }

  close(): void {
    this.last.close();
  }

  #look(shown: number, { captureTime }: VideoFrameCallbackMetadata): void {
    if (this.#over) return;
    const { video, last, small, told } = this;
    if (last.trouble) {
      told.trouble(last.trouble);
      return;
    }
    const now = captureTime ?? shown;
    last.take(new VideoFrame(video, { timestamp: Math.round(now * 1000) }));
    small.drawImage(video, 0, 0, SMALL_WIDE, SMALL_HIGH);
    const seen = greys(small.getImageData(0, 0, SMALL_WIDE, SMALL_HIGH).data);
    const motion = this.#before ? motionBetween(this.#before, seen) : 0;
    const swing = this.#before && this.#finder.see(now, motion);
    this.#before = seen;
    this.latest = now;
    this.#begin();
    this.#motions.push({ at: now, motion });
    while ((this.#motions[0]?.at ?? now) < now - KNOWN_MS) this.#motions.shift();
    if (swing) told.swing(swing);
    video.requestVideoFrameCallback((at, about) => this.#look(at, about));
  }
}
