import { Pause, Play, RotateCcw, Square } from "lucide-react";
import { useEffect } from "react";
import { minutes } from "../../walk/words";
import { hint } from "../commands/table";
import { ChalkTools } from "./ChalkTools";
import { LevelMeter } from "./LevelMeter";
import { endTake, pauseTake, sayAgain, useRecording } from "./recording";

/** While a walk is recorded: how long it is, how loud, and what can be done, at whatever station. */
export function RecordingBar() {
  const { phase, ms, count } = useRecording();
  // Who leaves the bench is heard no longer.
  useEffect(() => () => void endTake(), []);
  if (phase === "idle" || phase === "opening") return null;
  const paused = phase === "paused";
  return (
    <section
      aria-label="Recording"
      className="flex flex-wrap items-center gap-2 rounded border-l-4 border-clay bg-base-100 px-2 py-1"
    >
      <p className="num min-w-24 font-semibold" role="timer">
        {phase === "counting" ? `${count} …` : minutes(ms)}
        {paused && <span className="font-normal"> paused</span>}
      </p>
      <LevelMeter />
      {phase !== "counting" && (
        <>
          <button type="button" className="btn btn-sm" onClick={pauseTake} title={hint("pause_walk")}>
            {paused ? <Play size={15} aria-hidden /> : <Pause size={15} aria-hidden />}
            {paused ? "Go on" : "Pause"}
          </button>
          <button type="button" className="btn btn-sm" onClick={sayAgain} title={hint("say_again")}>
            <RotateCcw size={15} aria-hidden /> Say this again
          </button>
        </>
      )}
      <ChalkTools />
      <button
        type="button"
        className="btn btn-sm btn-primary ml-auto"
        onClick={() => void endTake()}
        disabled={phase === "ending"}
        title={hint("record_walk")}
      >
        <Square size={13} aria-hidden fill="currentColor" /> {phase === "ending" ? "Ending …" : "End"}
      </button>
    </section>
  );
}
