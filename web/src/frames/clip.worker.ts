import { ClipDecoder } from "./clipDecoder";
import type { Asked, Told } from "./messages";
import { PictureDecoder } from "./pictureDecoder";

const tell = (told: Told, given: Transferable[] = []) => self.postMessage(told, { transfer: given });

const pictures = new PictureDecoder();
let clip: Promise<ClipDecoder | null> | null = null;

async function opened(url: string): Promise<ClipDecoder | null> {
  const found = await ClipDecoder.open(url, pictures, tell);
  tell(found ? { kind: "opened", keys: found.keys, bytes: found.bytes } : { kind: "unable" });
  return found;
}

async function answer(asked: Asked): Promise<void> {
  try {
    if (asked.kind === "open") clip = opened(asked.url);
    else await (await clip)?.ask(asked);
  } catch (error) {
    tell({ kind: "failed", message: (error as Error).message });
  }
}

self.onmessage = ({ data }: MessageEvent<Asked>) => void answer(data);
