import { useRecording } from "./recording";

const QUIETEST_DB = -60;

/** How loud the microphone hears: a stretch of tape that fills. */
export function LevelMeter() {
  const level = useRecording((state) => state.level);
  const loud = level > 0 ? Math.max(0, 1 - (20 * Math.log10(level)) / QUIETEST_DB) : 0;
  const shown = Math.min(loud, 1);
  return (
    // biome-ignore lint/a11y/useSemanticElements: the browser's own cannot be drawn as a tape
    <span
      role="meter"
      aria-label="How loud"
      aria-valuenow={Math.round(100 * shown)}
      aria-valuemin={0}
      aria-valuemax={100}
      className="relative block h-3 w-28 overflow-hidden rounded-sm border border-base-content/40"
    >
      <span className="absolute inset-y-0 left-0 bg-brass" style={{ width: `${100 * shown}%` }} />
      <span className="absolute inset-y-0 left-[93%] w-px bg-base-content" aria-hidden />
    </span>
  );
}
