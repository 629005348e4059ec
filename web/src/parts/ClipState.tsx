import type { ClipOut } from "../api/queries";
import { VIEW_WORDS } from "../words";

/** What a clip is, or how far its making is. */
export function ClipState({ clip }: { clip: ClipOut }) {
  if (clip.state === "refused") return <span className="text-sm">Not usable: {clip.refusal}</span>;
  if (clip.state !== "ready")
    return (
      <span className="flex items-center gap-2 text-sm">
        <progress
          className="progress progress-accent w-28"
          value={clip.progress}
          max={100}
          aria-label={`Making ${clip.original_name} ready`}
        />
        <span className="num text-xs">
          {clip.state === "waiting" ? "waiting for the worker" : `${clip.progress} %`}
        </span>
      </span>
    );
  const rate = clip.capture_fps ?? clip.played_fps;
  return (
    <span className="text-sm opacity-85">
      {VIEW_WORDS[clip.view]} · <span className="num">{clip.frame_count}</span> frames at{" "}
      <span className="num">{Math.round(rate)}</span>/s
      {clip.capture_fps !== null && " (slow motion)"}
    </span>
  );
}
