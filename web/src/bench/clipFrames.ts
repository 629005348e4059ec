import { FrameStore } from "./frameStore";
import { StillStore } from "./stillStore";

export type ClipFrames = FrameStore | StillStore;

interface Held {
  frames: Promise<ClipFrames>;
  holders: number;
}

const open = new Map<string, Held>();

/** The frames of a clip, shared by all that show it; they are let go with the last of them. */
export function holdFrames(
  clipId: string,
  frameCount: number,
): { frames: Promise<ClipFrames>; letGo: () => void } {
  const held = open.get(clipId) ?? { frames: opened(clipId, frameCount), holders: 0 };
  open.set(clipId, held);
  held.holders++;
  const letGo = () => {
    if (--held.holders > 0) return;
    open.delete(clipId);
    held.frames.then(
      (frames) => frames.close(),
      () => undefined, // they never opened
    );
  };
  return { frames: held.frames, letGo };
}

/** Decoded here where the browser can, else the server's stills: both by number, never by time. */
async function opened(clipId: string, frameCount: number): Promise<ClipFrames> {
  const clip = `/api/clips/${clipId}`;
  const decoded = "VideoDecoder" in window ? await FrameStore.open(`${clip}/proxy.mp4`) : null;
  return decoded ?? new StillStore(clip, frameCount);
}
