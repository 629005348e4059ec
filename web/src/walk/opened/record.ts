import { unzipSync } from "fflate";
import type { Schemas } from "../../api/client";

type Played = Schemas["PlayedWalk"];

/** A walk record out of its file: docs/formats/walk.md. */
export interface WalkRecord {
  walk: Played;
  voice: Uint8Array;
  clips: Map<string, Uint8Array>;
}

const MOST_BYTES = 600 * 1024 * 1024; // unpacked

/** Read a walk record; an Error says in words what is missing or wrong in which file. */
export function readRecord(zipped: Uint8Array): WalkRecord {
  let sum = 0;
  const files = unpacked(zipped, (name, size) => {
    sum += size;
    if (sum > MOST_BYTES) throw new Error("This file is larger than a walk can be.");
    return name.startsWith("walk/");
  });
  const fileOf = (name: string) => {
    const file = files[`walk/${name}`];
    if (!file) throw new Error(`walk/${name} is missing: this file holds no walk, or not all of it.`);
    return file;
  };
  const walk = parsed(fileOf("walk.json"));
  const clips = new Map(walk.clips.map(({ id }) => [id, fileOf(`clips/${id}.mp4`)]));
  return { walk, voice: fileOf("voice.m4a"), clips };
}

function unpacked(zipped: Uint8Array, wanted: (name: string, size: number) => boolean) {
  try {
    return unzipSync(zipped, { filter: ({ name, originalSize }) => wanted(name, originalSize) });
  } catch (trouble) {
    const said = trouble instanceof Error ? trouble.message : "";
    throw new Error(said.startsWith("This file") ? said : "This file is no zip, or it is damaged.");
  }
}

const LISTS = ["score", "chapters", "clips"] as const;

function parsed(file: Uint8Array): Played {
  let found: Partial<Played> | null = null;
  try {
    found = JSON.parse(new TextDecoder().decode(file));
  } catch {
    throw new Error("walk/walk.json is not JSON.");
  }
  for (const list of LISTS)
    if (!Array.isArray(found?.[list])) throw new Error(`walk/walk.json: ${list} is not a list.`);
  if (!(Number(found?.length_ms) > 0)) throw new Error("walk/walk.json: length_ms is not a time.");
  if (typeof found?.captions !== "object") throw new Error("walk/walk.json: captions are missing.");
  const clips = found.clips as Partial<Schemas["WalkClip"]>[];
  if (clips.some((clip) => !/^[0-9a-f-]{36}$/.test(clip.id ?? "") || !Array.isArray(clip.gauges)))
    throw new Error("walk/walk.json: a clip has no id, or no gauges.");
  return found as Played;
}
