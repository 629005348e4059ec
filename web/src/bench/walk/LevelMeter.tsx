import { useRecording } from "./recording";

const QUIETEST_DB = -60;

/** How loud the microphone hears: a stretch of tape that fills. */
export function LevelMeter() {
  const level = useRecording((state) => state.level);
  const loud = level > 0 ? Math.max(0, 1 - (20 * Math.log10(level)) / QUIETEST_DB) : 0;
  return (
    <meter
      className="h-3 w-24"
      aria-label="How loud"
      min={0}
      max={1}
      low={0.35}
      high={0.93}
      optimum={0.7}
      value={Math.min(loud, 1)}
    />
  );
}
