import { useEffect, useRef, useState } from "react";
import { closeCamera, openCamera, type Seen } from "./camera";

/**
 * A live picture in a video element for as long as it is wanted; its shape is wide over high, once it is there.
 *
 * `seen` is the same object as long as it is the same camera.
 */
export function useCamera(wanted: boolean, seen: Seen) {
  const video = useRef<HTMLVideoElement>(null);
  const [shape, setShape] = useState<number | null>(null);
  const [gives, setGives] = useState<MediaTrackSettings | null>(null);
  const [error, setError] = useState<Error | null>(null);
  useEffect(() => {
    if (!wanted) return;
    let close: () => void = () => undefined;
    let gone = false;
    const awake = stayAwake();
    setError(null);
    const play = async (shown: HTMLVideoElement, settings: MediaTrackSettings | null) => {
      await shown.play();
      setGives(settings);
      setShape(shown.videoWidth / shown.videoHeight);
    };
    const open = async () => {
      if ("clip" in seen) {
        if (!video.current) return;
        const shown = video.current;
        const address = URL.createObjectURL(seen.clip);
        close = () => {
          shown.removeAttribute("src");
          shown.load();
          URL.revokeObjectURL(address);
        };
        shown.src = address;
        shown.loop = true;
        await play(shown, null);
        return;
      }
      const stream = await openCamera(seen);
      if (gone || !video.current) {
        closeCamera(stream);
        return;
      }
      const shown = video.current;
      close = () => {
        closeCamera(stream);
        shown.srcObject = null;
      };
      const [track] = stream.getVideoTracks();
      track?.addEventListener("ended", () => {
        setShape(null);
        setError(new Error("The camera was taken away. Open it again."));
      });
      shown.srcObject = stream;
      await play(shown, track?.getSettings() ?? null);
    };
    open().catch((trouble: Error) => {
      if (!gone) setError(trouble);
    });
    return () => {
      gone = true;
      setShape(null);
      close();
      void awake.then((lock) => lock?.release());
    };
  }, [wanted, seen]);
  return { video, shape, gives, error };
}

/** A phone on a stand is touched by nobody: its screen stays on, where the browser can have it so. */
async function stayAwake(): Promise<WakeLockSentinel | null> {
  try {
    return (await navigator.wakeLock?.request("screen")) ?? null;
  } catch {
    return null; // low on power, or not on the screen
  }
}
