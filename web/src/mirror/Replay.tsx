import { useEffect, useMemo, useRef, useState } from "react";
import type { Hand } from "../words";
import { LineLayer } from "./LineLayer";
import type { Lines } from "./lines";

const PACES = [0.25, 0.5, 1] as const;

/** A swing that was just made, played over and over, slowly, with the lines standing. */
export function Replay(props: { clip: File; lines: Lines; hand: Hand; mirrored: boolean }) {
  const { clip, lines, hand, mirrored } = props;
  const video = useRef<HTMLVideoElement>(null);
  const [pace, setPace] = useState<number>(PACES[0]);
  const [shape, setShape] = useState(9 / 16);
  const address = useMemo(() => URL.createObjectURL(clip), [clip]);
  useEffect(() => () => URL.revokeObjectURL(address), [address]);
  useEffect(() => {
    if (video.current) video.current.playbackRate = pace;
  }, [pace]);
  return (
    <>
      <div className="relative mx-auto max-h-full" style={{ aspectRatio: shape }}>
        <video
          ref={video}
          src={address}
          className={`h-full w-full ${mirrored ? "-scale-x-100" : ""}`}
          aria-label={`Your swing, ${pace === 1 ? "as fast as it was" : `at ${pace} of its pace`}`}
          data-testid="replay"
          autoPlay
          loop
          muted
          playsInline
          onLoadedMetadata={({ currentTarget }) => {
            currentTarget.playbackRate = pace;
            setShape(currentTarget.videoWidth / currentTarget.videoHeight);
          }}
        />
        <LineLayer lines={lines} hand={hand} mirrored={mirrored} change={null} />
      </div>
      <fieldset className="join absolute top-3 right-3">
        <legend className="sr-only">Pace</legend>
        {PACES.map((each) => (
          <button
            key={each}
            type="button"
            aria-pressed={pace === each}
            className={`btn btn-sm join-item num ${pace === each ? "btn-primary" : ""}`}
            onClick={() => setPace(each)}
          >
            {each === 1 ? "1" : each === 0.5 ? "½" : "¼"}
            <span className="sr-only"> of its pace</span>
          </button>
        ))}
      </fieldset>
    </>
  );
}
