import { chaptersOf } from "./chapters";
import { type Cut, cutLength, saidAnew, type Take, wholeScore } from "./cut";

/** What the worker asks of the screens' code (tropometer/server/walks/screens_code.py). */
const CAN = {
  /** The score, length and chapters of a cut. */
  whole(cut: Cut, takes: Take[], pegs: Record<string, Record<string, number>>) {
    const lengths = new Map(takes.map((take) => [take.id, take.length_ms]));
    const length_ms = cutLength(cut, (id) => lengths.get(id) ?? 0);
    const score = wholeScore(cut, takes);
    return { length_ms, score, chapters: chaptersOf(score, length_ms, pegs) };
  },
  /** A cut with a take said anew in the place of a stretch. */
  said_anew(cut: Cut, from: number, to: number, take: string, lengths: Record<string, number>) {
    return saidAnew(cut, from, to, take, (id) => lengths[id] ?? 0);
  },
};

export function run(name: keyof typeof CAN, given: string): string {
  const answer: (...given: never[]) => unknown = CAN[name];
  return JSON.stringify(answer(...(JSON.parse(given) as never[])));
}
