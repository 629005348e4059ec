import { ClipDecoder } from "./clipDecoder";
import type { Asked, Told } from "./messages";

let decoder: Promise<ClipDecoder | null> | null = null;

const tell = (told: Told, given: Transferable[] = []) => self.postMessage(told, { transfer: given });

async function opened(url: string): Promise<ClipDecoder | null> {
  const found = await ClipDecoder.open(url, tell);
  tell(found ? { kind: "opened", keys: found.keys, bytes: found.bytes } : { kind: "unable" });
  return found;
}

async function answer(asked: Asked): Promise<void> {
  try {
    if (asked.kind === "open") decoder = opened(asked.url);
    else await (await decoder)?.ask(asked);
  } catch (error) {
    tell({ kind: "failed", message: (error as Error).message });
  }
}

self.onmessage = ({ data }: MessageEvent<Asked>) => void answer(data);
