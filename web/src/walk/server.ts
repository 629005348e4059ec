import type { Schemas } from "../api/client";
import { onPaper } from "../lesson/paper/paper";
import type { Units } from "../units";
import type { Hand } from "../words";
import { chaptersOf } from "./chapters";
import { type Cut, cutLength, type Take, wholeScore } from "./cut";
import { FILM, filmOf } from "./film/film";

/** What the worker asks of the screens' code (tropometer/server/walks/screens_code.py). */
const CAN = {
  /** The score, length and chapters of a cut. */
  whole(cut: Cut, takes: Take[], pegs: Record<string, Record<string, number>>) {
    const lengths = new Map(takes.map((take) => [take.id, take.length_ms]));
    const length_ms = cutLength(cut, (id) => lengths.get(id) ?? 0);
    const score = wholeScore(cut, takes);
    return { length_ms, score, chapters: chaptersOf(score, length_ms, pegs) };
  },
  /** Begin a film: its pictures are asked for one after the other. */
  film(walk: Schemas["PlayedWalk"], title: string, units: Units, hand: Hand) {
    pictureAt = filmOf(walk, title, units, hand);
    return FILM;
  },
  /** A lesson's sheet as it stands on paper. */
  paper: (sheet: Schemas["LessonSheet"], pictures: Record<string, string>) => onPaper(sheet, pictures),
  /** The film's picture at a time. */
  film_at: (ms: number) => pictureAt?.(ms) ?? null,
};

let pictureAt: ReturnType<typeof filmOf> | null = null;

/** Answers one line: a function's name and what it is given. */
export function run(line: string): string {
  const [name, given] = JSON.parse(line) as [keyof typeof CAN, never[]];
  const answer: (...given: never[]) => unknown = CAN[name];
  return JSON.stringify(answer(...given));
}
