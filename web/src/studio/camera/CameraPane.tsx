import { useEffect } from "react";
import type { Camera } from "../../camera/camera";
import { useCamera } from "../../camera/useCamera";
import { Trouble } from "../../parts/Trouble";

/** One live camera; `live` is told its picture as soon as there is one, and null once there is none. */
export function CameraPane(props: {
  camera: Camera;
  label: string;
  live: (video: HTMLVideoElement | null) => void;
}) {
  const { camera, label, live } = props;
  const { video, shape, gives, error, again } = useCamera(true, camera);
  const there = shape !== null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: who is told is the same
  useEffect(() => {
    live(there ? video.current : null);
    return () => live(null);
  }, [there]);
  const { width, height, frameRate } = gives ?? {};
  return (
    <div>
      {error && <Trouble error={error} retry={again} />}
      <video
        ref={video}
        className="max-h-96 w-full rounded bg-dusk object-contain"
        style={{ aspectRatio: shape ?? 16 / 9 }}
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
