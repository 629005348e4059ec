import tapUrl from "./tap.worklet.ts?worker&url";

export interface Block {
  samples: Float32Array<ArrayBuffer>;
  end: number; // s, on the context's clock
}

/** An open microphone. */
export interface Microphone {
  context: AudioContext;
  label: string;
  id: string;
  listen: (heard: (block: Block) => void) => void;
  lost: (gone: () => void) => void; // it was unplugged, or taken away
  close: () => void;
}

/** Why there is no microphone, in words. */
export class NoMicrophone extends Error {
  override readonly name = "NoMicrophone";
}

export const RATE = 48_000;

const WHY: Record<string, string> = {
  NotAllowedError:
    "The microphone is not allowed for this page. Allow it beside the address, or go on without sound.",
  NotFoundError: "No microphone is there. Plug one in, or go on without sound.",
  OverconstrainedError: "That microphone is not there any more. Choose another.",
  NotReadableError: "The microphone is used by something else, or does not answer.",
};

/**
 * Opens a microphone, the one that was chosen or the browser's own. NoMicrophone says why it cannot.
 *
 * For a voice the browser takes noise away; of the room it hands on all as it is: a strike is a noise.
 */
export async function openMicrophone(id: string | null, of: "voice" | "room" = "voice"): Promise<Microphone> {
  const media = navigator.mediaDevices; // there is none on a page that came over a plain line
  if (!media) throw new NoMicrophone("This browser gives a microphone to secure pages (https) only.");
  const wanted = {
    channelCount: 1,
    echoCancellation: false,
    noiseSuppression: of === "voice",
    autoGainControl: of === "voice",
    ...(id ? { deviceId: { exact: id } } : {}),
  };
  const stream = await media.getUserMedia({ audio: wanted }).catch((error: DOMException) => {
    throw new NoMicrophone(WHY[error.name] ?? `The microphone cannot be opened (${error.message}).`);
  });
  const [track] = stream.getAudioTracks();
  const context = new AudioContext({ sampleRate: RATE });
  const close = () => {
    for (const each of stream.getTracks()) each.stop();
    void context.close();
  };
  const listen = await tapped(context, context.createMediaStreamSource(stream)).catch((error: Error) => {
    close();
    throw error;
  });
  return {
    context,
    label: track?.label ?? "",
    id: track?.getSettings().deviceId ?? "",
    listen,
    lost: (gone) => track?.addEventListener("ended", gone),
    close,
  };
}

/** Has what a source plays told in blocks. */
async function tapped(context: AudioContext, source: AudioNode): Promise<Microphone["listen"]> {
  try {
    await context.audioWorklet.addModule(tapUrl);
    await context.resume();
  } catch {
    throw new NoMicrophone("The recorder cannot be loaded. Reload the page.");
  }
  const tap = new AudioWorkletNode(context, "tap", { numberOfOutputs: 0, channelCount: 1 });
  source.connect(tap);
  return (heard) => {
    tap.port.onmessage = ({ data }: MessageEvent<Block>) => heard(data);
  };
}

/** The microphones that can be chosen; their names are known once one was allowed. */
export async function microphones(): Promise<{ id: string; label: string }[]> {
  const all = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  return all
    .filter(({ kind, deviceId }) => kind === "audioinput" && deviceId !== "default")
    .map(({ deviceId, label }, i) => ({ id: deviceId, label: label || `Microphone ${i + 1}` }));
}
