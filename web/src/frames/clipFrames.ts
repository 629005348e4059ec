import { FrameStore } from "./frameStore";
import type { FrameSource } from "./source";
import { StillStore } from "./stillStore";

export type ClipFrames = FrameStore | StillStore;

interface Held {
  frames: Promise<ClipFrames>;
  holders: number;
}

const open = new Map<string, Held>();

/** The frames of a clip, shared by all that show it, the one wanted first before others; they are let go with the last of them. */
export function holdFrames(
  source: FrameSource,
  first: number,
): { frames: Promise<ClipFrames>; letGo: () => void } {
  const name = source.proxy;
  const held = open.get(name) ?? { frames: opened(source, first), holders: 0 };
  open.set(name, held);
  held.holders++;
  const letGo = () => {
    if (--held.holders > 0) return;
    open.delete(name);
    held.frames.then(
      (frames) => frames.close(),
      () => undefined, // they never opened
    );
  };
  return { frames: held.frames, letGo };
}

const WARM_MS = 2000;

/** Open a clip before its stage is there to hold it. */
export function warmFrames(source: FrameSource, first: number): void {
  const { frames, letGo } = holdFrames(source, first);
  frames.catch(() => undefined); // its stage says what is wrong
  window.setTimeout(letGo, WARM_MS);
}

/** Decoded here where the browser can, else the server's stills: both by number, never by time. */
async function opened(source: FrameSource, first: number): Promise<ClipFrames> {
  const decoded = "VideoDecoder" in window ? await FrameStore.open(source.proxy, first) : null;
  return decoded ?? new StillStore(source);
}
