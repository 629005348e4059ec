import { type ClipOut, stillOf } from "../api/queries";

/** Where the frames of a clip come from: a proxy to decode here, and the server's own stills of it. */
export interface FrameSource {
  proxy: string;
  still: (frame: number, height?: number) => string;
  frame_count: number;
}

/** The frames of a clip of the instructor's own; turned round, it is another picture. */
export function sourceOf(clip: Pick<ClipOut, "id" | "flipped" | "frame_count">): FrameSource {
  return {
    proxy: `/api/clips/${clip.id}/proxy.mp4${clip.flipped ? "?flipped=1" : ""}`,
    still: (frame, height) => stillOf(clip, frame, height),
    frame_count: clip.frame_count,
  };
}
