import { LastSeconds } from "./lastSeconds";
import { greys, motionBetween, SwingFinder } from "./swingFinder";

const SMALL_WIDE = 64;
const SMALL_HIGH = 48;

interface Told {
  swing: (clip: File) => void;
  trouble: (error: Error) => void;
}

/** Looks at a live picture for swings until it is told to stop; what it keeps meanwhile is the last seconds only. */
export async function watch(video: HTMLVideoElement, told: Told): Promise<() => void> {
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
    if (swing) {
      count += 1;
      last
        .cut(swing.from * 1000, swing.to * 1000, `swing-${count}`)
        .then((clip) => clip && !over && told.swing(clip))
        .catch((error: Error) => !over && told.trouble(error));
    }
    video.requestVideoFrameCallback(look);
  };
  video.requestVideoFrameCallback(look);
  return () => {
    over = true;
    last.close();
  };
}
