import { useEffect, useState } from "react";
import { Field } from "../../parts/Field";
import { Trouble } from "../../parts/Trouble";
import { usePageTitle } from "../../parts/usePageTitle";
import { Wordmark } from "../../parts/Wordmark";
import type { Units } from "../../units";
import type { WalkFiles } from "../player/files";
import { WalkPlayer } from "../player/WalkPlayer";
import { readRecord, type WalkRecord } from "./record";
import { Unplayable } from "./Unplayable";

/** Plays a walk record from a file, in this browser alone: nothing of it is sent anywhere. */
export function OpenedWalk() {
  const [opened, setOpened] = useState<{ record: WalkRecord; files: WalkFiles } | null>(null);
  const [trouble, setTrouble] = useState<Error | null>(null);
  const [units, setUnits] = useState<Units>("cm");
  usePageTitle("A walk from a file");
  useEffect(() => () => opened?.files.letGo?.(), [opened]);
  const open = async (file: File) => {
    setTrouble(null);
    try {
      const record = readRecord(new Uint8Array(await file.arrayBuffer()));
      setOpened({ record, files: filesOf(record) });
    } catch (error) {
      setOpened(null);
      setTrouble(new Error(`${file.name}: ${(error as Error).message}`));
    }
  };
  const hand = opened?.record.walk.clips.find(({ whose }) => whose === "student")?.hand ?? "right";
  return (
    <main className="mx-auto max-w-md p-4">
      <header className="mb-4 rounded bg-pine p-3 text-paper">
        <Wordmark />
      </header>
      <h1 className="text-xl font-bold">A walk from a file</h1>
      <p className="mt-1 mb-4">
        Choose the one file that was taken along from a lesson. It is played here, in this browser; nothing of
        it is sent anywhere.
      </p>
      <Field label="File of a lesson (.zip)">
        <input
          type="file"
          className="file-input w-full"
          accept=".zip,application/zip"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void open(file);
          }}
        />
      </Field>
      {trouble && <Trouble error={trouble} />}
      {opened && (
        <>
          <Unplayable key={opened.files.voice}>
            <WalkPlayer walk={opened.record.walk} files={opened.files} units={units} hand={hand} />
          </Unplayable>
          <button
            type="button"
            className="btn btn-sm mt-2"
            onClick={() => setUnits(units === "cm" ? "in" : "cm")}
          >
            {units === "cm" ? "Show inches" : "Show centimetres"}
          </button>
        </>
      )}
    </main>
  );
}

/** The record's files as addresses of this page. */
function filesOf({ voice, clips }: WalkRecord): WalkFiles {
  const address = (bytes: Uint8Array, type: string) =>
    URL.createObjectURL(new Blob([bytes as Uint8Array<ArrayBuffer>], { type }));
  const spoken = address(voice, "audio/mp4");
  const films = new Map([...clips].map(([id, bytes]) => [id, address(bytes, "video/mp4")]));
  return {
    voice: spoken,
    source: ({ id, frame_count }) => ({
      proxy: films.get(id) ?? "",
      still: () => "", // whoever cannot decode has the film, walk.mp4
      frame_count,
    }),
    letGo: () => {
      for (const url of [spoken, ...films.values()]) URL.revokeObjectURL(url);
    },
  };
}
