export type Facing = "user" | "environment";

/** Why there is no picture, in words. */
export class NoCamera extends Error {
  override readonly name = "NoCamera";
}

const WHY: Record<string, string> = {
  NotAllowedError: "The camera is not allowed for this page. Allow it beside the address, and try again.",
  NotFoundError: "No camera is there.",
  OverconstrainedError: "That camera is not there. Try the other one.",
  NotReadableError: "The camera is used by something else, or does not answer.",
};

/** Which camera: the one on a side of a phone, or one that the browser names; "" is any. */
export type Camera = { facing: Facing } | { device: string };

/** Opens a camera. NoCamera says why it cannot. */
export async function openCamera(which: Camera): Promise<MediaStream> {
  const media = navigator.mediaDevices; // there is none on a page that came over a plain line
  if (!media) throw new NoCamera("This browser gives a camera to secure pages (https) only.");
  const video = {
    ...("facing" in which
      ? { facingMode: which.facing }
      : which.device
        ? { deviceId: { exact: which.device } }
        : {}),
    width: { ideal: 1280 },
    height: { ideal: 720 },
    frameRate: { ideal: 60 },
  };
  return media.getUserMedia({ video, audio: false }).catch((error: DOMException) => {
    throw new NoCamera(WHY[error.name] ?? `The camera cannot be opened (${error.message}).`);
  });
}

/** The cameras that are there; without a name until one was allowed. */
export async function cameras(): Promise<MediaDeviceInfo[]> {
  const all = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  return all.filter(({ kind, deviceId }) => kind === "videoinput" && deviceId !== "");
}

export function closeCamera(stream: MediaStream): void {
  for (const track of stream.getTracks()) track.stop();
}
