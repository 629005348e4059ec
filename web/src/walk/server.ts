import { chaptersOf } from "./chapters";
import { type Cut, cutLength, type Take, wholeScore } from "./cut";

/** What the worker asks of the screens' code (tropometer/server/walks/screens_code.py). */
const CAN = {
  /** The score, length and chapters of a cut. */
  whole(cut: Cut, takes: Take[], pegs: Record<string, Record<string, number>>) {
    const lengths = new Map(takes.map((take) => [take.id, take.length_ms]));
    const length_ms = cutLength(cut, (id) => lengths.get(id) ?? 0);
    const score = wholeScore(cut, takes);
    return { length_ms, score, chapters: chaptersOf(score, length_ms, pegs) };
  },
};

/** Answers one line: a function's name and what it is given. */
export function run(line: string): string {
  const [name, given] = JSON.parse(line) as [keyof typeof CAN, never[]];
  const answer: (...given: never[]) => unknown = CAN[name];
  return JSON.stringify(answer(...given));
}
