import Uppy, { type UppyFile } from "@uppy/core";
import Tus from "@uppy/tus";
import { useEffect, useMemo, useRef, useState } from "react";
import { csrfToken, type Schemas } from "../api/client";
import { otherSide } from "../sides";
import { typed } from "../units";
import type { View } from "../words";
import { SHELF } from "./whom";

const MOST_BYTES = 500 * 1024 * 1024;
const MOST_CLIPS = 8;
const PIECE_BYTES = 2 * 1024 * 1024; // what is lost of a piece when a connection drops is sent again
const TUS = { "Tus-Resumable": "1.0.0" };
const RETRY_MS = [0, 1000, 3000, 5000, 10_000, 20_000];

// Each is said after the file's name and a colon.
const REFUSALS = {
  noDuplicates: "it is chosen already.",
  exceedsSize: "it is larger than %{size}.",
  youCanOnlyUploadFileTypes: "it is no video.",
  youCanOnlyUploadX: { 0: "one clip at a time.", 1: "at most %{smart_count} clips at a time." },
};

interface About extends Record<string, unknown> {
  for: string; // a student's id, or the shelf; of a request link the server knows
  view: View;
  capture: string;
  mirrored: boolean;
}

type Meta = { name: string; type?: string } & About;
type Sent = UppyFile<Meta, Record<string, never>>;

/** One chosen file: how far it is, and what is said of it. */
export interface Arriving {
  id: string;
  name: string;
  bytes: number;
  share: number;
  arrived: boolean;
  stopped: string | null;
  view: View;
  capture: string;
  mirrored: boolean;
}

/**
 * Clips on their way to the server, piece by piece: a dropped connection goes on by itself, and a file
 * chosen again after a closed tab goes on where it stopped.
 */
export function useClipUploads(endpoint: string, whom = SHELF, firstView: View = "face_on") {
  const uppy = useMemo(() => createUppy(endpoint), [endpoint]);
  const shown = useRef(whom);
  shown.current = whom;
  const [files, setFiles] = useState<Sent[]>([]);
  const [refused, setRefused] = useState<string[]>([]);
  const kept = useRef(false);
  useEffect(() => {
    kept.current = false;
    const update = () => setFiles(uppy.getFiles() as Sent[]);
    const restricted = (file: { name?: string } | undefined, error: Error) =>
      setRefused((lines) => [...lines, `${file?.name ?? "The file"}: ${error.message}`]);
    uppy.on("state-update", update);
    uppy.on("restriction-failed", restricted);
    const online = () => uppy.retryAll();
    window.addEventListener("online", online);
    return () => {
      window.removeEventListener("online", online);
      uppy.off("state-update", update);
      uppy.off("restriction-failed", restricted);
      // What is taken back before it was handed in leaves nothing behind.
      if (!kept.current) for (const file of uppy.getFiles()) forget(uppy, file as Sent);
      uppy.cancelAll();
    };
  }, [uppy]);
  return {
    files: files.map(arriving),
    bothViews: new Set(files.map((file) => file.meta.view)).size > 1,
    refused,
    add: (chosen: Iterable<File>) => {
      setRefused([]);
      for (const file of chosen) {
        const view = uppy.getFiles().length % 2 === 0 ? firstView : otherSide(firstView);
        const about: About = { for: shown.current, view, capture: "", mirrored: false };
        try {
          uppy.addFile({ name: file.name, type: file.type, data: file, meta: about as Meta });
        } catch {
          // said by restriction-failed
        }
      }
    },
    tell: (id: string, about: Partial<About>) => {
      const file = uppy.getFile(id) as Sent | undefined;
      if (file) uppy.setFileMeta(id, { ...file.meta, ...about });
    },
    remove: (id: string) => {
      const file = uppy.getFile(id) as Sent | undefined;
      if (file) forget(uppy, file);
    },
    retry: () => uppy.retryAll(),
    /** The finished uploads as the API takes them. */
    clips: (): Schemas["ClipIn"][] =>
      (uppy.getFiles() as Sent[]).map((file) => ({
        upload_id: uploadId(file) ?? "",
        view: file.meta.view,
        capture_fps: file.meta.capture ? typed(file.meta.capture) : null,
        flipped: file.meta.mirrored,
      })),
    /** Take the files off the list that the server refused and forgot. */
    dropForgotten: async () => {
      for (const file of uppy.getFiles() as Sent[]) {
        const address = file.progress.uploadComplete ? addressOf(file) : null;
        const answer = address && (await fetch(address, { method: "HEAD", headers: TUS }).catch(() => null));
        if (answer && answer.status === 404) uppy.removeFile(file.id);
      }
    },
    /** From now on they are the server's to keep or to forget; `false` takes that back. */
    handedIn: (yes: boolean) => {
      kept.current = yes;
    },
  };
}

export type ClipUploads = ReturnType<typeof useClipUploads>;

/** Send one clip whole; its upload's id. A dropped connection goes on by itself for a while, then it fails. */
export async function uploadOne(
  endpoint: string,
  clip: File,
  whom: string,
  told: (share: number) => void,
): Promise<string> {
  const uppy = createUppy(endpoint);
  try {
    const about: About = { for: whom, view: "face_on", capture: "", mirrored: false };
    uppy.on("progress", (percent) => told(percent / 100));
    const gone = new Promise<string>((resolve, reject) => {
      uppy.on("complete", ({ successful, failed }) => {
        const id = successful?.[0] && uploadId(successful[0] as Sent);
        if (id) resolve(id);
        else reject(new Error(failed?.[0]?.error ?? "The clip did not arrive."));
      });
    });
    uppy.addFile({ name: clip.name, type: clip.type, data: clip, meta: about as Meta });
    return await gone;
  } finally {
    uppy.destroy();
  }
}

function createUppy(endpoint: string) {
  const uppy = new Uppy<Meta, Record<string, never>>({
    autoProceed: true,
    locale: { strings: REFUSALS, pluralize: (count) => (count === 1 ? 0 : 1) },
    restrictions: {
      maxFileSize: MOST_BYTES,
      maxNumberOfFiles: MOST_CLIPS,
      allowedFileTypes: ["video/*", ".mp4", ".mov", ".webm", ".m4v", ".3gp", ".mkv", ".avi"],
    },
  });
  uppy.use(Tus, {
    endpoint,
    chunkSize: PIECE_BYTES,
    retryDelays: RETRY_MS,
    removeFingerprintOnSuccess: true,
    allowedMetaFields: ["name", "for"],
    headers: () => ({ "X-CSRFToken": csrfToken() }),
  });
  return uppy;
}

function arriving(file: Sent): Arriving {
  const bytes = file.size ?? 0;
  const sent = typeof file.progress.bytesUploaded === "number" ? file.progress.bytesUploaded : 0;
  return {
    id: file.id,
    name: file.name ?? "clip",
    bytes,
    share: file.progress.uploadComplete ? 1 : bytes ? sent / bytes : 0,
    arrived: Boolean(file.progress.uploadComplete) && uploadId(file) !== null,
    stopped: file.error ? "The connection is gone. What has arrived is kept; it goes on from there." : null,
    view: file.meta.view,
    capture: file.meta.capture,
    mirrored: file.meta.mirrored,
  };
}

function addressOf(file: Sent): string | null {
  return file.uploadURL ?? file.response?.uploadURL ?? null;
}

function uploadId(file: Sent): string | null {
  return addressOf(file)?.split("/").at(-1) ?? null;
}

function forget(uppy: Uppy<Meta, Record<string, never>>, file: Sent): void {
  const address = addressOf(file);
  uppy.removeFile(file.id); // stops it, and tells the server when it was under way
  if (file.progress.uploadComplete && address)
    void fetch(address, {
      method: "DELETE",
      headers: { ...TUS, "X-CSRFToken": csrfToken() },
      keepalive: true,
    });
}
