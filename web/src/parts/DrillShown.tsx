import { Play } from "lucide-react";
import { useRef, useState } from "react";
import type { Schemas } from "../api/client";
import type { Hand } from "../words";

type Shown = Schemas["ShownOut"];

const LOOP_WORDS: Record<string, string> = { right: "Done right", wrong: "Done wrong", own: "The drill" };
const PICTURE_WORDS: Record<string, string> = { start: "Start", end: "End", own: "" };

/** How a drill goes: its pictures side by side, its loops when they are asked for. Drawings are turned for the hand. */
export function DrillShown({ shown, name, hand }: { shown: Shown[]; name: string; hand: Hand }) {
  const [running, run] = useState<Shown | null>(null);
  const pictures = shown.filter(({ kind }) => kind === "picture");
  const loops = shown.filter(({ kind }) => kind === "clip");
  if (!shown.length) return null;
  const turned = (each: Shown) => (hand === "left" && each.what !== "own" ? "-scale-x-100" : "");
  return (
    <div className="my-2">
      {running ? (
        <Loop key={running.url} loop={running} name={name} className={turned(running)} />
      ) : (
        <div className="flex gap-1">
          {pictures.map((each) => (
            <figure key={each.url} className="min-w-0 flex-1">
              <img
                src={each.url}
                loading="lazy"
                alt={`${name}${PICTURE_WORDS[each.what] ? `: ${PICTURE_WORDS[each.what]?.toLowerCase()}` : ""}`}
                className={`w-full ${each.what === "own" ? "" : "aspect-8/9 bg-drawing"} ${turned(each)}`}
              />
              {PICTURE_WORDS[each.what] && (
                <figcaption className="text-center text-xs">{PICTURE_WORDS[each.what]}</figcaption>
              )}
            </figure>
          ))}
        </div>
      )}
      {loops.length > 0 && (
        <div className="mt-1 flex flex-wrap gap-1">
          {loops.map((each) => (
            <button
              key={each.url}
              type="button"
              className="btn btn-sm"
              aria-pressed={running === each}
              onClick={() => run(running === each ? null : each)}
            >
              <Play size={14} aria-hidden /> {LOOP_WORDS[each.what]}
              <span className="sr-only">: {name}</span>
            </button>
          ))}
        </div>
      )}
    </div>
  );
}

/** A loop that was asked for runs at once, and stops at a press. */
function Loop({ loop, name, className }: { loop: Shown; name: string; className: string }) {
  const video = useRef<HTMLVideoElement>(null);
  const [stopped, stop] = useState(false);
  return (
    <figure>
      <video
        ref={video}
        src={loop.url}
        className={`mx-auto max-h-96 max-w-full ${className}`}
        autoPlay
        loop
        muted
        playsInline
        aria-label={`${name}: ${LOOP_WORDS[loop.what]?.toLowerCase()}`}
        onPlay={() => stop(false)}
        onPause={() => stop(true)}
      />
      <figcaption className="flex items-center justify-center gap-2 text-xs">
        {LOOP_WORDS[loop.what]}
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          onClick={() => (stopped ? void video.current?.play() : video.current?.pause())}
        >
          {stopped ? "Go on" : "Stop"}
        </button>
      </figcaption>
    </figure>
  );
}
