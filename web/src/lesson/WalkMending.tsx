import { useQueryClient } from "@tanstack/react-query";
import { Mic, Redo2, Scissors, Undo2 } from "lucide-react";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { outbox } from "../outbox";
import { walkLane } from "../outbox/posts";
import { type Cut, cutLength, moved, placeAt, saidAnew, trimmed, without } from "../walk/cut";
import type { Voice } from "../walk/player/useVoice";
import { minutes } from "../walk/words";
import { momentWords } from "../words";
import { useSavedText } from "./useSavedText";
import { useWalkUndo } from "./walkUndo";

type Walk = Schemas["WalkOut"];

const LEFT_OF_A_SILENCE_MS = 500;
const SLIP_MS = 200; // a shorter stretch was not meant

/** What can be mended of a walk: a stretch cut out, chapters moved, silences shortened, words over each chapter. */
export function WalkMending({
  walk,
  played,
  voice,
  sayAnew,
}: {
  walk: Walk;
  played: Schemas["PlayedWalk"];
  voice: Voice;
  sayAnew?: (cut: Cut) => void; // where something can be said: the new take has the name "" in the cut
}) {
  const queries = useQueryClient();
  const [from, setFrom] = useState<number | null>(null);
  const changes = useWalkUndo(walk.lesson_id);
  const cut: Cut = walk.cut;
  const takes = new Map(walk.takes.map((take) => [take.id, take]));
  const lengths = (take: string) => takes.get(take)?.length_ms ?? 0;
  const put = (next: Cut) => {
    const id = crypto.randomUUID();
    queries.setQueryData(["walk", walk.lesson_id], { ...walk, cut: next, making: true });
    outbox().add({
      id,
      lane: walkLane(walk.lesson_id),
      subject: "cut",
      what: "how the walk is cut",
      post: { kind: "cut", lessonId: walk.lesson_id, cut: { cut: next } },
    });
  };
  const mend = (next: Cut) => {
    changes.note(cut);
    setFrom(null);
    put(next);
  };
  const back = () => {
    const last = changes.undo(cut);
    if (last) put(last);
  };
  const again = () => {
    const last = changes.redo(cut);
    if (last) put(last);
  };
  const anew = (first: number, last: number) => {
    changes.note(cut);
    setFrom(null);
    sayAnew?.(saidAnew(cut, first, last, "", lengths));
  };
  const shorter = trimmed(
    cut,
    (take) => (takes.get(take)?.silences ?? []) as [number, number][],
    LEFT_OF_A_SILENCE_MS,
    lengths,
  );
  const silent = cutLength(cut, lengths) - cutLength(shorter, lengths);
  const stretch = from === null ? null : ([Math.min(from, voice.ms), Math.max(from, voice.ms)] as const);
  const chapters = played.chapters.filter(({ name }) => name);
  const ends = chapters.map((_, i) => chapters[i + 1]?.at ?? played.length_ms);
  const marked = markedAgain(walk, lengths);
  return (
    <div className="grid gap-2 border-t border-paper/20 bg-base-100 p-3 text-base-content">
      <div className="flex flex-wrap items-center gap-1">
        {stretch === null ? (
          <button type="button" className="btn btn-sm" onClick={() => setFrom(voice.ms)}>
            <Scissors size={14} aria-hidden /> From here …
          </button>
        ) : (
          <>
            <button
              type="button"
              className="btn btn-sm btn-primary"
              disabled={stretch[1] - stretch[0] < SLIP_MS}
              onClick={() => mend(without(cut, stretch[0], stretch[1], lengths))}
            >
              Cut out {minutes(stretch[0])} to {minutes(stretch[1])}
            </button>
            {sayAnew && (
              <button
                type="button"
                className="btn btn-sm"
                disabled={stretch[1] - stretch[0] < SLIP_MS}
                onClick={() => anew(stretch[0], stretch[1])}
              >
                <Mic size={14} aria-hidden /> Say it anew
              </button>
            )}
            <button type="button" className="btn btn-sm btn-ghost" onClick={() => setFrom(null)}>
              Leave it
            </button>
          </>
        )}
        {silent > SLIP_MS && (
          <button type="button" className="btn btn-sm" onClick={() => mend(shorter)}>
            Shorten silences ({(silent / 1000).toFixed(1)} s)
          </button>
        )}
        <button
          type="button"
          className="btn btn-sm btn-square ml-auto"
          aria-label="Undo the last change of the walk"
          disabled={!changes.canUndo}
          onClick={back}
        >
          <Undo2 size={14} aria-hidden />
        </button>
        <button
          type="button"
          className="btn btn-sm btn-square"
          aria-label="Make the change of the walk again"
          disabled={!changes.canRedo}
          onClick={again}
        >
          <Redo2 size={14} aria-hidden />
        </button>
      </div>
      {marked.length > 0 && (
        <p className="text-sm">
          To be said again:{" "}
          {marked.map((ms) => (
            <button key={ms} type="button" className="link mr-2" onClick={() => voice.goTo(ms)}>
              {minutes(ms)}
            </button>
          ))}
        </p>
      )}
      <ol className="grid gap-2" aria-label="Captions">
        {chapters.map(({ at, name }, i) => (
          <li key={`${at} ${name}`} className="grid gap-1">
            <div className="flex items-center gap-2 text-sm">
              <button type="button" className="link" onClick={() => voice.goTo(at)}>
                {momentWords(name)}, {minutes(at)}
              </button>
              {i > 0 && (
                <button
                  type="button"
                  className="btn btn-ghost btn-xs ml-auto"
                  onClick={() => mend(moved(cut, at, ends[i] ?? at, chapters[i - 1]?.at ?? 0, lengths))}
                >
                  Say it before {momentWords(chapters[i - 1]?.name ?? "").toLowerCase()}
                </button>
              )}
            </div>
            <Caption walk={walk} name={name} />
          </li>
        ))}
      </ol>
    </div>
  );
}

/** The words over a chapter, for whoever does not hear the voice. */
function Caption({ walk, name }: { walk: Walk; name: string }) {
  const text = useSavedText(walk.captions[name] ?? "", {
    lane: walkLane(walk.lesson_id),
    subject: `caption ${name}`,
    what: `the caption at ${momentWords(name).toLowerCase()}`,
    post: (words) => ({
      kind: "cut",
      lessonId: walk.lesson_id,
      cut: { captions: { [name]: words } },
    }),
    textOf: (post) => (post.kind === "cut" ? post.cut.captions?.[name] : null),
  });
  return (
    <textarea
      className="textarea textarea-sm w-full"
      rows={2}
      maxLength={1000}
      aria-label={`Caption at ${momentWords(name).toLowerCase()}`}
      placeholder="What is said here, for whoever does not hear it"
      {...text}
    />
  );
}

/** Where in the walk as it is cut now something was to be said again. */
function markedAgain(walk: Walk, lengths: (take: string) => number): number[] {
  const all = cutLength(walk.cut, lengths);
  const found: number[] = [];
  for (const take of walk.takes)
    for (const at of take.again)
      for (let ms = 0; ms < all; ms += 100) {
        const place = placeAt(walk.cut, ms, lengths);
        if (place?.take === take.id && Math.abs(place.at - at) <= 50) {
          found.push(ms);
          break;
        }
      }
  return found.sort((a, b) => a - b);
}
