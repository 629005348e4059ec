import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Download, RotateCcw } from "lucide-react";
import { api, got } from "../api/client";
import type { ClipOut } from "../api/queries";
import { VIEW_WORDS } from "../words";

/** What a clip is, how far its making is, or what stands in its way. */
export function ClipState({ clip, refreshes }: { clip: ClipOut; refreshes: "swings" | "shelf" }) {
  if (clip.state === "refused" || clip.state === "failed")
    return <InTheWay clip={clip} refreshes={refreshes} />;
  if (clip.state !== "ready")
    return (
      <span className="flex flex-wrap items-center gap-2 text-sm">
        <progress
          className="progress progress-accent w-28"
          value={clip.progress}
          max={100}
          aria-label={`Making ${clip.original_name} ready`}
        />
        <span className="num text-xs">
          {clip.state === "waiting" ? "waiting for the worker" : `${clip.progress} %`}
        </span>
        {clip.trouble && (
          <span className="text-xs">It stopped once ({clip.trouble}) and is tried again.</span>
        )}
      </span>
    );
  const rate = clip.capture_fps ?? clip.played_fps;
  return (
    <span className="text-sm opacity-85">
      {VIEW_WORDS[clip.view]} · <span className="num">{clip.frame_count}</span> frames at{" "}
      <span className="num">{Math.round(rate)}</span>/s
      {clip.capture_fps !== null && " (slow motion)"}
      {clip.drawn && ", drawn from markers"}
    </span>
  );
}

function InTheWay({ clip, refreshes }: { clip: ClipOut; refreshes: string }) {
  const queries = useQueryClient();
  const again = useMutation({
    mutationFn: () => got(api.POST("/api/clips/{id}/try-again", { params: { path: { id: clip.id } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: [refreshes] }),
  });
  return (
    <span className="flex flex-wrap items-center gap-2 border-l-4 border-brass pl-2 text-sm">
      <span>
        <span className="font-medium">{clip.original_name}</span>{" "}
        {clip.state === "refused"
          ? `is not usable: ${clip.trouble} The file is kept for 14 days.`
          : `could not be made ready: ${clip.trouble}. The file is kept.`}
      </span>
      <button type="button" className="btn btn-xs" onClick={() => again.mutate()} disabled={again.isPending}>
        <RotateCcw size={12} aria-hidden /> Try again
      </button>
      <a className="btn btn-xs" href={`/api/clips/${clip.id}/original`} download={clip.original_name}>
        <Download size={12} aria-hidden /> Fetch the file
      </a>
      {again.error && <span role="alert">{again.error.message}</span>}
    </span>
  );
}
