import { type Score, ScoreReader } from "./score";

/** A stretch of a walk about one moment of the swing. */
export interface Chapter {
  at: number; // ms
  name: string; // of a checkpoint; "" before the first one is reached
}

const LINGERS_MS = 700; // who only runs through a checkpoint does not speak about it

/**
 * A walk's chapters: a new one begins where a stage comes to stand on another checkpoint and stays there for a
 * while. `pegs` are the checkpoints' frames on each clip.
 */
export function chaptersOf(
  score: Score,
  length: number,
  pegs: Record<string, Record<string, number>>,
): Chapter[] {
  const reader = new ScoreReader(score);
  const found: Chapter[] = [];
  const times = score.filter(({ kind }) => kind === "frame" || kind === "stage").map(({ at }) => at);
  const stands = [...new Set(times)].sort((a, b) => a - b);
  for (const [i, at] of stands.entries()) {
    if ((stands[i + 1] ?? length) - at < LINGERS_MS) continue;
    const { stages } = reader.at(at);
    const name = (["student", "reference"] as const)
      .map((side) => stages[side])
      .flatMap((stage) => {
        const on = stage ? Object.entries(pegs[stage.clip] ?? {}) : [];
        return on.filter(([, frame]) => frame === stage?.frame).map(([name]) => name);
      })
      .at(0);
    if (name && found.at(-1)?.name !== name) found.push({ at: found.length ? at : 0, name });
  }
  return found.length ? found : [{ at: 0, name: "" }];
}
