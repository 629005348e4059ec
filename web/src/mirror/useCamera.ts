import { useEffect, useRef, useState } from "react";
import { closeCamera, type Facing, openCamera } from "./camera";

/** A live picture in a video element for as long as it is wanted; `wide` over `high` is its shape once it is there. */
export function useCamera(wanted: boolean, facing: Facing) {
  const video = useRef<HTMLVideoElement>(null);
  const [shape, setShape] = useState<number | null>(null);
  const [error, setError] = useState<Error | null>(null);
  useEffect(() => {
    if (!wanted) return;
    let stream: MediaStream | undefined;
    let gone = false;
    const awake = stayAwake();
    setError(null);
    openCamera(facing)
      .then(async (opened) => {
        if (gone || !video.current) {
          closeCamera(opened);
          return;
        }
        stream = opened;
        opened.getVideoTracks()[0]?.addEventListener("ended", () => {
          setShape(null);
          setError(new Error("The camera was taken away. Open it again."));
        });
        video.current.srcObject = opened;
        await video.current.play();
        setShape(video.current.videoWidth / video.current.videoHeight);
      })
      .catch((trouble: Error) => {
        if (!gone) setError(trouble);
      });
    return () => {
      gone = true;
      setShape(null);
      if (stream) closeCamera(stream);
      void awake.then((lock) => lock?.release());
    };
  }, [wanted, facing]);
  return { video, shape, error };
}

/** A phone on a stand is touched by nobody: its screen stays on, where the browser can have it so. */
async function stayAwake(): Promise<WakeLockSentinel | null> {
  try {
    return (await navigator.wakeLock?.request("screen")) ?? null;
  } catch {
    return null; // low on power, or not on the screen
  }
}
