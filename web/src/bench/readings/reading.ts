import type { Schemas } from "../../api/client";
import type { Checkpoint } from "../../words";

/** What is always true of each reading, by its id. */
export type Kinds = Record<string, Schemas["ReadingKind"]>;

type Columns = Schemas["ReadingColumns"];
type Of<Key extends keyof Columns> = Columns[Key] extends (infer One)[] ? One : never;

/** A reading at one moment: given, or refused for a reason. */
export interface Reading extends Omit<Schemas["ReadingKind"], "reading"> {
  reading: string;
  at: string;
  status: "ok" | "refused";
  value: number | null;
  u95: number | null;
  clips: string[];
  frames: number[];
  said: string;
  reason: string;
  needs: Of<"needs">;
  provisional: boolean;
  band: Of<"band">;
  standing: Of<"standing">;
}

/** A mark seen from above at one checkpoint, metres, with its 95 % half-widths. */
export interface FloorMark {
  name: string;
  at: Checkpoint;
  t: number;
  b: number;
  u95_t: number;
  u95_b: number;
}

export interface Floor {
  marks: FloorMark[];
  cameras: Schemas["FloorOut"]["cameras"];
}
