import type { Schemas } from "../../api/client";
import { momentWords } from "../../words";
import { minutes } from "../words";
import type { Voice } from "./useVoice";

/** How far the walk is: a measuring tape with a notch at each chapter. */
export function WalkBar({
  voice,
  length,
  chapters,
}: {
  voice: Pick<Voice, "ms" | "goTo">;
  length: number;
  chapters: Schemas["Chapter"][];
}) {
  const share = (ms: number) => `${(100 * ms) / Math.max(length, 1)}%`;
  const named = chapters.filter(({ name }) => name);
  return (
    <div className="px-3 pt-2">
      <div className="relative h-6">
        <div className="absolute inset-x-0 top-3 h-0.5 bg-paper/40" aria-hidden />
        <div
          className="absolute top-2.5 left-0 h-1.5 bg-brass"
          style={{ width: share(voice.ms) }}
          aria-hidden
        />
        {named.map(({ at, name }) => (
          <span
            key={`${at} ${name}`}
            className="absolute top-1 h-4 w-0.5 bg-brass"
            style={{ left: share(at) }}
            aria-hidden
          />
        ))}
        <input
          type="range"
          className="absolute inset-0 w-full cursor-pointer opacity-0 focus-visible:opacity-60"
          aria-label="Where in the walk"
          aria-valuetext={`${minutes(voice.ms)} of ${minutes(length)}`}
          min={0}
          max={length}
          step={100}
          value={Math.round(voice.ms)}
          onChange={(event) => voice.goTo(Number(event.target.value))}
        />
      </div>
      {named.length > 1 && (
        <ol className="flex flex-wrap gap-x-1 pb-1 text-xs" aria-label="Chapters">
          {named.map(({ at, name }) => (
            <li key={`${at} ${name}`}>
              <button
                type="button"
                className="min-h-7 px-1.5 underline decoration-brass underline-offset-4"
                onClick={() => voice.goTo(at)}
              >
                {momentWords(name)}
              </button>
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}
