import { LastSeconds } from "./lastSeconds";
import { type Found, greys, motionBetween, SwingFinder } from "./swingFinder";

const SMALL_WIDE = 64;
const SMALL_HIGH = 48;

// What is kept of a try: from before the strike, which is when it moves fastest, to after it, milliseconds.
const KEPT_BEFORE_MS = 3000;
const KEPT_AFTER_MS = 2000;
const APART_MS = 3000; // nobody strikes two balls within so long: what is found by motion and by a hand is one
// A hand that says so is later than the strike by about so much; common practice, no source.
const HAND_LATE_MS = 600;

export type StruckBy = "motion" | "hand";

/** A ball that was struck: when, by this machine's clock and in its clip, and what told of it. */
export interface Struck {
  at: number; // milliseconds, as Date.now
  clip: File;
  inClip: number; // seconds from its first picture
  by: StruckBy;
}

interface Told {
  swing: (clip: File, at: number) => void; // as soon as it is over
  whole?: (struck: Struck) => void; // once all that is kept of it was seen
  trouble: (error: Error) => void;
}

export interface Watch {
  stop: () => void;
  now: () => void; // a hand says that a ball was just struck
}

/** Looks at a live picture for swings until it is told to stop; what it keeps meanwhile is the last seconds only. */
export async function watch(video: HTMLVideoElement, told: Told): Promise<Watch> {
  const last = await LastSeconds.open(video.videoWidth, video.videoHeight);
  if (!last)
    throw new Error(
      "This browser shows the lines, but cannot keep a clip. Another one, or a newer one, can.",
    );
  const small = new OffscreenCanvas(SMALL_WIDE, SMALL_HIGH).getContext("2d", { willReadFrequently: true });
  if (!small) throw new Error("This browser cannot look at its own picture.");
  small.imageSmoothingQuality = "high"; // else one pixel's noise stands for twenty pixels
  const finder = new SwingFinder();
  let before: Uint8Array | null = null;
  let count = 0;
  let over = false;
  let latest = 0;
  let struck = Number.NEGATIVE_INFINITY;
  const pending = new Map<number, { timer: number; ending: () => Promise<void> }>(); // swings that are not whole yet
  const cut = (from: number, to: number, name: string) => last.cut(from * 1000, to * 1000, name);
  const keep = async (number: number, top: number, at: number, by: StruckBy) => {
    const kept = await cut(top - KEPT_BEFORE_MS, top + KEPT_AFTER_MS, `try-${number}`);
    pending.delete(number);
    if (kept) told.whole?.({ at, clip: kept.clip, inClip: top / 1000 - kept.from / 1e6, by });
  };
  const trouble = (error: Error) => {
    if (!over) told.trouble(error);
  };
  const swung = ({ from, top, to }: Found, by: StruckBy) => {
    if (top - struck < APART_MS) return;
    struck = top;
    count += 1;
    const number = count;
    const at = Math.round(Date.now() - (performance.now() - top));
    cut(from, to, `swing-${number}`)
      .then((kept) => kept && !over && told.swing(kept.clip, at))
      .catch(trouble);
    if (!told.whole) return;
    const wait = top + KEPT_AFTER_MS - performance.now();
    const ending = () => keep(number, top, at, by);
    const timer = window.setTimeout(() => ending().catch(trouble), wait);
    pending.set(number, { timer, ending });
  };
  const look = (shown: number, { captureTime }: VideoFrameCallbackMetadata) => {
    if (over) return;
    const now = captureTime ?? shown;
    if (last.trouble) {
      told.trouble(last.trouble);
      return;
    }
    last.take(new VideoFrame(video, { timestamp: Math.round(now * 1000) }));
    small.drawImage(video, 0, 0, SMALL_WIDE, SMALL_HIGH);
    const seen = greys(small.getImageData(0, 0, SMALL_WIDE, SMALL_HIGH).data);
    const swing = before && finder.see(now, motionBetween(before, seen));
    before = seen;
    latest = now;
    if (swing) swung(swing, "motion");
    video.requestVideoFrameCallback(look);
  };
  video.requestVideoFrameCallback(look);
  return {
    stop: () => {
      over = true;
      // What was swung before is kept as far as it was seen.
      const ending = [...pending.values()].map(({ timer, ending }) => {
        window.clearTimeout(timer);
        return ending();
      });
      void Promise.allSettled(ending).then(() => last.close());
    },
    now: () => {
      const top = latest - HAND_LATE_MS;
      if (latest) swung({ from: top - KEPT_BEFORE_MS / 2, top, to: latest }, "hand");
    },
  };
}
