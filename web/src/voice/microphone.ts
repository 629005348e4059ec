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
    "The microphone is not allowed for this page. Allow it beside the address, or make a walk without a voice.",
  NotFoundError: "No microphone is there. Plug one in, or make a walk without a voice.",
  OverconstrainedError: "That microphone is not there any more. Choose another.",
  NotReadableError: "The microphone is used by something else, or does not answer.",
};

/** Opens a microphone, the one that was chosen or the browser's own. NoMicrophone says why it cannot. */
export async function openMicrophone(id: string | null): Promise<Microphone> {
  const media = navigator.mediaDevices; // there is none on a page that came over a plain line
  if (!media) throw new NoMicrophone("This browser gives a microphone to secure pages (https) only.");
  const wanted = {
    channelCount: 1,
    echoCancellation: false,
    noiseSuppression: true,
    autoGainControl: true,
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
  try {
    await context.audioWorklet.addModule(tapUrl);
    await context.resume();
  } catch {
    close();
    throw new NoMicrophone("The recorder cannot be loaded. Reload the page.");
  }
  const tap = new AudioWorkletNode(context, "tap", { numberOfOutputs: 0, channelCount: 1 });
  context.createMediaStreamSource(stream).connect(tap);
  return {
    context,
    label: track?.label ?? "",
    id: track?.getSettings().deviceId ?? "",
    listen: (heard) => {
      tap.port.onmessage = ({ data }: MessageEvent<Block>) => heard(data);
    },
    lost: (gone) => track?.addEventListener("ended", gone),
    close,
  };
}

/** The microphones that can be chosen; their names are known once one was allowed. */
export async function microphones(): Promise<{ id: string; label: string }[]> {
  const all = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  return all
    .filter(({ kind, deviceId }) => kind === "audioinput" && deviceId !== "default")
    .map(({ deviceId, label }, i) => ({ id: deviceId, label: label || `Microphone ${i + 1}` }));
}
