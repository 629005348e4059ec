import { useEffect } from "react";
import type { Seen } from "../../camera/camera";
import { useCamera } from "../../camera/useCamera";
import { Trouble } from "../../parts/Trouble";

/** One live camera; `live` is told its picture as soon as there is one, and null once there is none. */
export function CameraPane(props: {
  seen: Seen;
  label: string;
  live: (video: HTMLVideoElement | null) => void;
}) {
  const { seen, label, live } = props;
  const camera = useCamera(true, seen);
  const there = camera.shape !== null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: who is told is the same
  useEffect(() => {
    live(there ? camera.video.current : null);
    return () => live(null);
  }, [there]);
  const { width, height, frameRate } = camera.gives ?? {};
  return (
    <div>
      {camera.error && <Trouble error={camera.error} />}
      <video
        ref={camera.video}
        className="max-h-96 w-full rounded bg-dusk object-contain"
        style={{ aspectRatio: camera.shape ?? 16 / 9 }}
        aria-label={label}
        muted
        playsInline
      />
      {there && width && height && (
        <p className="num mt-1 text-sm" data-testid="gives">
          {width} × {height}, {Math.round(frameRate ?? 0)} pictures a second
        </p>
      )}
    </div>
  );
}
