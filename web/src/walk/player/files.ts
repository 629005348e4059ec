import type { Schemas } from "../../api/client";
import type { FrameSource } from "../../frames/source";

/** Where a walk's voice and pictures are. */
export interface WalkFiles {
  voice: string;
  source: (clip: Schemas["WalkClip"]) => FrameSource;
  letGo?: () => void; // of what this page alone holds
}

/** Beneath an address of the server. */
export function served(base: string, walk: Schemas["PlayedWalk"]): WalkFiles {
  return {
    voice: `${base}/voice.m4a?${walk.made}`,
    source: ({ id, frame_count }) => ({
      proxy: `${base}/clips/${id}.mp4`,
      still: (number, height) => `${base}/clips/${id}/${number}.jpg${height ? `?height=${height}` : ""}`,
      frame_count,
    }),
  };
}
