import { useEffect, useMemo, useRef, useState } from "react";
import type { Gates } from "./gates";

const PACE = 0.25;
const HIGHEST_REM = 24; // a phone's picture stands upright

/** The try that was just made, a quarter as fast, over and over, with the gates of its address standing. */
export function TryReplay({ clip, label, gates }: { clip: File; label: string; gates: Gates | null }) {
  const video = useRef<HTMLVideoElement>(null);
  const [shape, setShape] = useState(16 / 9);
  const address = useMemo(() => URL.createObjectURL(clip), [clip]);
  useEffect(() => () => URL.revokeObjectURL(address), [address]);
  return (
    <figure>
      <div
        className="relative mx-auto"
        style={{ aspectRatio: shape, maxWidth: `calc(${HIGHEST_REM}rem * ${shape})` }}
      >
        <video
          ref={video}
          src={address}
          className="h-full w-full rounded bg-dusk"
          aria-label={label}
          data-testid="replay"
          autoPlay
          loop
          muted
          playsInline
          onLoadedMetadata={({ currentTarget }) => {
            currentTarget.playbackRate = PACE;
            setShape(currentTarget.videoWidth / currentTarget.videoHeight);
          }}
        />
        {gates?.at.map((at) => (
          <span
            key={at}
            data-testid="gate"
            className={`absolute inset-y-0 border-brass ${gates.own ? "border-l-2" : "border-l-2 border-dashed"}`}
            style={{ left: `${at * 100}%` }}
            aria-hidden
          />
        ))}
      </div>
      {gates && (
        <figcaption className="mt-1 text-sm">
          {gates.own
            ? "The lines stand where this try began."
            : "The lines stand where the try before began, until this one is read."}
        </figcaption>
      )}
    </figure>
  );
}
