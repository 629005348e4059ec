import { useEffect, useRef, useState } from "react";
import { type Camera, closeCamera, openCamera } from "./camera";

/**
 * A live picture in a video element for as long as it is wanted; its shape is wide over high, once it is there.
 *
 * `camera` is the same object as long as it is the same camera. `again` opens one anew that was taken away.
 */
export function useCamera(wanted: boolean, camera: Camera) {
  const video = useRef<HTMLVideoElement>(null);
  const [shape, setShape] = useState<number | null>(null);
  const [gives, setGives] = useState<MediaTrackSettings | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [opened, setOpened] = useState(0);
  const given = useRef<{ asked: Camera; device: string } | null>(null); // opened again, "any" is the same one
  useEffect(() => {
    if (!wanted) return;
    let close: () => void = () => undefined;
    let gone = false;
    const awake = stayAwake();
    setError(null);
    const open = async () => {
      const stream = await openCamera(
        opened > 0 && given.current?.asked === camera ? { device: given.current.device } : camera,
      );
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
      const { deviceId } = track?.getSettings() ?? {};
      if (deviceId) given.current = { asked: camera, device: deviceId };
      shown.srcObject = stream;
      await shown.play();
      setGives(track?.getSettings() ?? null);
      setShape(shown.videoWidth / shown.videoHeight);
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
  }, [wanted, camera, opened]);
  const again = () => setOpened((count) => count + 1);
  return { video, shape, gives, error, again };
}

/** A phone on a stand is touched by nobody: its screen stays on, where the browser can have it so. */
async function stayAwake(): Promise<WakeLockSentinel | null> {
  try {
    return (await navigator.wakeLock?.request("screen")) ?? null;
  } catch {
    return null; // low on power, or not on the screen
  }
}
