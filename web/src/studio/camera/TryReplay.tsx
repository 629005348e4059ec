import { useEffect, useMemo, useRef } from "react";

const PACE = 0.25;

/** The try that was just made, a quarter as fast, over and over. */
export function TryReplay({ clip }: { clip: File }) {
  const video = useRef<HTMLVideoElement>(null);
  const address = useMemo(() => URL.createObjectURL(clip), [clip]);
  useEffect(() => () => URL.revokeObjectURL(address), [address]);
  return (
    <video
      ref={video}
      src={address}
      className="max-h-96 w-full rounded bg-dusk object-contain"
      aria-label="The last try, a quarter as fast"
      data-testid="replay"
      autoPlay
      loop
      muted
      playsInline
      onLoadedMetadata={({ currentTarget }) => {
        currentTarget.playbackRate = PACE;
      }}
    />
  );
}
