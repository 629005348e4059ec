import {
  Captions,
  ChevronLeft,
  ChevronRight,
  Maximize2,
  Minimize2,
  Pause,
  Play,
  Volume2,
  VolumeX,
} from "lucide-react";
import { type ReactNode, useMemo, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import type { Units } from "../../units";
import { type Hand, momentWords, sidesOf } from "../../words";
import { type Score, ScoreReader, type Side } from "../score";
import { minutes } from "../words";
import type { WalkFiles } from "./files";
import { OpenDrawer } from "./OpenDrawer";
import { PlayedStage } from "./PlayedStage";
import { PACES, useVoice, type Voice } from "./useVoice";
import { WalkBar } from "./WalkBar";
import { WhatIsShown } from "./WhatIsShown";

interface Props {
  walk: Schemas["PlayedWalk"];
  files: WalkFiles;
  units: Units;
  hand: Hand; // of the student who reads it
  begin?: boolean; // somebody has just pressed to hear it
  beneath?: (voice: Voice) => ReactNode;
}

/** A narrated walk: the voice is the clock, and the stages show what stood there when it was said. */
export function WalkPlayer({ walk, files, units, hand, begin = false, beneath }: Props) {
  const audio = useRef<HTMLAudioElement>(null);
  const voice = useVoice(audio, begin);
  const reader = useMemo(() => new ScoreReader(walk.score as Score), [walk.score]);
  const clips = useMemo(() => new Map(walk.clips.map((clip) => [clip.id, clip])), [walk.clips]);
  const [stepped, setStepped] = useState<{ at: number; by: number } | null>(null); // from what stands there
  const [alone, setAlone] = useState<Side | null>(null);
  const [captions, setCaptions] = useState<boolean | null>(null); // null: while nothing is heard
  const scene = reader.at(voice.ms);
  const by = !voice.playing && stepped?.at === voice.ms ? stepped.by : 0;
  const chapter = walk.chapters.findLast(({ at }) => at <= voice.ms + 1);
  const words = chapter ? walk.captions[chapter.name] : undefined;
  const told = captions ?? (voice.muted || walk.silent);
  const solo = alone ?? scene.solo;
  const both = (["student", "reference"] as const).filter((side) => scene.stages[side]);
  const sides = both.filter((side) => !solo || side === solo || !scene.stages[solo]);
  const step = (way: 1 | -1) => setStepped({ at: voice.ms, by: by + way });
  return (
    <section aria-label="Walk through your swing" className="overflow-hidden rounded bg-pine text-paper">
      {/* biome-ignore lint/a11y/useMediaCaption: captions are told beneath, chapter by chapter */}
      <audio ref={audio} src={files.voice} preload="auto" />
      <div className="relative flex aspect-[4/5] gap-0.5 sm:aspect-[5/4]" data-walk-ms={Math.round(voice.ms)}>
        {sides.map((side) => {
          const shown = scene.stages[side];
          const clip = shown && clips.get(shown.clip);
          if (!shown || !clip) return null;
          const frame = Math.min(Math.max(shown.frame + by, 0), clip.frame_count - 1);
          const source = files.source(clip);
          return (
            <PlayedStage
              key={`${side} ${clip.id}`}
              {...{ side, shown, clip, source, scene, frame, units, hand }}
            />
          );
        })}
        {scene.rate !== null && Math.abs(scene.rate) !== 1 && (
          <p className="num absolute top-1 right-1 bg-dusk/80 px-1.5 text-[11px]">
            {`${+Math.abs(scene.rate).toFixed(3)} of real time`}
          </p>
        )}
      </div>
      <OpenDrawer {...{ scene, clips, sides, by, units, hand }} />
      {told && words && <p className="bg-dusk px-3 py-2 text-sm leading-snug">{sidesOf(words, hand)}</p>}
      <WalkBar voice={voice} length={walk.length_ms} chapters={walk.chapters} />
      <div className="flex flex-wrap items-center gap-x-0.5 px-2 pb-2">
        <button
          type="button"
          className="btn btn-square border-0 bg-brass text-dusk"
          onClick={voice.turn}
          aria-label={voice.playing ? "Pause" : "Play"}
        >
          {voice.playing ? <Pause size={20} aria-hidden /> : <Play size={20} aria-hidden />}
        </button>
        <p className="num px-1 text-xs whitespace-nowrap">
          {minutes(voice.ms)} of {minutes(walk.length_ms)}
        </p>
        {!voice.playing && (
          <>
            <button type="button" className={PLAIN} aria-label="One frame back" onClick={() => step(-1)}>
              <ChevronLeft size={18} aria-hidden />
            </button>
            <button type="button" className={PLAIN} aria-label="One frame on" onClick={() => step(1)}>
              <ChevronRight size={18} aria-hidden />
            </button>
          </>
        )}
        <button
          type="button"
          className="btn btn-ghost btn-sm num ml-auto px-1.5 text-paper"
          aria-label={`Pace ${voice.pace}. Change it`}
          onClick={() => voice.setPace(paceAfter(voice.pace))}
        >
          ×{voice.pace}
        </button>
        {both.length > 1 && (
          <button
            type="button"
            className={PLAIN}
            aria-label={sides.length > 1 ? "You alone, larger" : "Both side by side"}
            onClick={() => setAlone(sides.length > 1 ? "student" : null)}
          >
            {sides.length > 1 ? <Maximize2 size={16} aria-hidden /> : <Minimize2 size={16} aria-hidden />}
          </button>
        )}
        <button
          type="button"
          className={PLAIN}
          aria-label="Captions"
          aria-pressed={told}
          onClick={() => setCaptions(!told)}
        >
          <Captions size={18} aria-hidden />
        </button>
        <button
          type="button"
          className={PLAIN}
          aria-label={voice.muted ? "Sound on" : "Sound off"}
          onClick={() => voice.setMuted(!voice.muted)}
        >
          {voice.muted ? <VolumeX size={18} aria-hidden /> : <Volume2 size={18} aria-hidden />}
        </button>
      </div>
      {voice.failed && (
        <p role="alert" className="px-3 pb-2 text-sm">
          The voice cannot be played right now. Its words are under each picture; try again in a moment.
        </p>
      )}
      <WhatIsShown scene={scene} clips={clips} sides={sides} by={by} units={units} hand={hand} />
      {beneath?.(voice)}
      <p className="sr-only" role="status">
        {chapter?.name ? momentWords(chapter.name) : ""}
      </p>
    </section>
  );
}

const paceAfter = (pace: number) => PACES[(PACES.indexOf(pace) + 1) % PACES.length] ?? 1;

const PLAIN = "btn btn-ghost btn-sm btn-square text-paper aria-pressed:bg-paper/20";
