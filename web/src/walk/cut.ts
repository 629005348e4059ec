import { leadingTo, NOTHING, type Score, ScoreReader } from "./score";

/** A stretch of one take, ms on its clock; `to` null: as far as it goes. */
export interface Stretch {
  take: string;
  from: number;
  to: number | null;
}

/** Which stretches of which takes make up a walk, in their order. Mending changes this list, never a take. */
export type Cut = Stretch[];

export interface Take {
  id: string;
  length_ms: number;
  score: Score;
}

type Lengths = (take: string) => number;

const SHORTEST_MS = 40; // a stretch that nobody could hear is none

const endOf = (stretch: Stretch, lengths: Lengths) =>
  Math.min(stretch.to ?? Number.POSITIVE_INFINITY, lengths(stretch.take));
const lengthOf = (stretch: Stretch, lengths: Lengths) => Math.max(0, endOf(stretch, lengths) - stretch.from);

/** How long a walk is. */
export const cutLength = (cut: Cut, lengths: Lengths) =>
  cut.reduce((sum, stretch) => sum + lengthOf(stretch, lengths), 0);

/** Where a moment of the walk lies: in which stretch, and when on its take's clock. */
export function placeAt(
  cut: Cut,
  ms: number,
  lengths: Lengths,
): { index: number; take: string; at: number } | null {
  let left = Math.max(0, ms);
  for (const [index, stretch] of cut.entries()) {
    const length = lengthOf(stretch, lengths);
    if (left < length || (index === cut.length - 1 && left <= length))
      return { index, take: stretch.take, at: stretch.from + left };
    left -= length;
  }
  return null;
}

/** The part of a cut between two moments of the walk. Seams lie on whole ms: a playing voice stops between them. */
export function part(cut: Cut, from: number, to: number, lengths: Lengths): Cut {
  const found: Cut = [];
  let start = 0;
  for (const stretch of cut) {
    const length = lengthOf(stretch, lengths);
    const [first, last] = [Math.max(from - start, 0), Math.min(to - start, length)];
    if (last - first >= SHORTEST_MS) {
      const open = stretch.to === null && last === length;
      const [starts, ends] = [Math.round(stretch.from + first), Math.round(stretch.from + last)];
      found.push({ take: stretch.take, from: starts, to: open ? null : ends });
    }
    start += length;
  }
  return found;
}

const END = Number.POSITIVE_INFINITY;

/** Without what lies between two moments. */
export const without = (cut: Cut, from: number, to: number, lengths: Lengths): Cut =>
  joined([...part(cut, 0, from, lengths), ...part(cut, to, END, lengths)]);

/** A take said anew in the place of what lies between two moments. */
export const saidAnew = (cut: Cut, from: number, to: number, take: string, lengths: Lengths): Cut => [
  ...part(cut, 0, from, lengths),
  { take, from: 0, to: null },
  ...part(cut, to, END, lengths),
];

/** What lies between two moments moved to before a third, which lies outside it. */
export function moved(cut: Cut, from: number, to: number, before: number, lengths: Lengths): Cut {
  if (before >= from && before <= to) return cut;
  const taken = part(cut, from, to, lengths);
  const [first, second] = before < from ? [before, from] : [to, before];
  const between = part(cut, first, second, lengths);
  return joined([
    ...part(cut, 0, Math.min(before, from), lengths),
    ...(before < from ? [...taken, ...between] : [...between, ...taken]),
    ...part(cut, Math.max(before, to), END, lengths),
  ]);
}

/** Without long silences: of each, `left` ms stay, half at either end. Silences are on the takes' own clocks. */
export function trimmed(
  cut: Cut,
  silences: (take: string) => [number, number][],
  left: number,
  lengths: Lengths,
): Cut {
  return cut.flatMap((stretch) => {
    const end = endOf(stretch, lengths);
    const gone = silences(stretch.take)
      .map(
        ([from, to]) =>
          [from <= stretch.from ? stretch.from : from + left / 2, to >= end ? end : to - left / 2] as const,
      )
      .filter(([from, to]) => from < end && to > stretch.from && to - from > SHORTEST_MS);
    const stays: Cut = [];
    let from = stretch.from;
    for (const [first, last] of [...gone, [end, end] as const]) {
      if (first - from >= SHORTEST_MS)
        stays.push({ take: stretch.take, from, to: first === end ? stretch.to : first });
      from = last;
    }
    return stays;
  });
}

/** Stretches that go on where the one before ends are one. */
function joined(cut: Cut): Cut {
  const found: Cut = [];
  for (const stretch of cut) {
    const last = found.at(-1);
    if (last && last.take === stretch.take && last.to === stretch.from) last.to = stretch.to;
    else found.push({ ...stretch });
  }
  return found;
}

/**
 * The score of a walk, on one clock, with nothing in it of what was cut away: at each seam what is seen changes to
 * what was seen there when it was said.
 */
export function wholeScore(cut: Cut, takes: Take[]): Score {
  const byId = new Map(takes.map((take) => [take.id, take]));
  const lengths: Lengths = (id) => byId.get(id)?.length_ms ?? 0;
  const whole: Score = [];
  let scene = NOTHING;
  let start = 0;
  for (const stretch of cut) {
    const take = byId.get(stretch.take);
    const length = lengthOf(stretch, lengths);
    if (!take || length === 0) continue;
    const reader = new ScoreReader(take.score);
    whole.push(...leadingTo(scene, reader.at(stretch.from), start));
    const [first, last] = [reader.count(stretch.from), reader.count(stretch.from + length - 1)];
    for (const event of take.score.slice(first, last))
      if (event.kind !== "again") whole.push({ ...event, at: start + event.at - stretch.from });
    scene = reader.at(stretch.from + length - 1);
    start += length;
  }
  return whole;
}
