import type { PegName } from "../../words";

export type Pegs = Partial<Record<PegName, number>>;

export interface Timeline {
  times: number[]; // real seconds of every frame
  pegs: Pegs;
  links: Pegs; // by which it is linked to another clip: its pegs, and proposed ones where none is set
  impactBetween: boolean; // impact lies between its frame and the next
}

/** When a checkpoint is, in real seconds of its clip. */
function pegTime(line: Timeline, name: PegName, among = line.pegs): number | undefined {
  const frame = among[name];
  const time = line.times[frame ?? -1];
  const next = line.times[(frame ?? -2) + 1];
  if (time === undefined || next === undefined) return time;
  return name === "impact" && line.impactBetween ? (time + next) / 2 : time;
}

/** Pairs of times at which both clips are at the same checkpoint, rising in both. */
function shared(a: Timeline, b: Timeline): [number, number][] {
  const pairs: [number, number][] = [];
  for (const name of Object.keys(a.links) as PegName[]) {
    const ta = pegTime(a, name, a.links);
    const tb = pegTime(b, name, b.links);
    if (ta !== undefined && tb !== undefined) pairs.push([ta, tb]);
  }
  pairs.sort((p, q) => p[0] - q[0]);
  return pairs.filter((pair, i) => {
    const before = pairs[i - 1];
    return !before || (pair[0] > before[0] && pair[1] > before[1]);
  });
}

/** Time in `b` that belongs to a time in `a`: straight between pegs, at the same pace beyond them. */
export function linkedTime(time: number, a: Timeline, b: Timeline): number {
  const pairs = shared(a, b);
  const first = pairs[0];
  const last = pairs.at(-1);
  if (!first || !last) return (b.times[0] ?? 0) + time - (a.times[0] ?? 0);
  if (time <= first[0]) return first[1] + time - first[0];
  if (time >= last[0]) return last[1] + time - last[0];
  const i = pairs.findIndex((pair) => pair[0] >= time);
  const [a0, b0] = pairs[i - 1] ?? first;
  const [a1, b1] = pairs[i] ?? last;
  return b0 + ((time - a0) / (a1 - a0)) * (b1 - b0);
}

/** The frame whose time is nearest. */
export function nearestFrame(times: number[], time: number): number {
  let low = 0;
  let high = times.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((times[middle] ?? 0) <= time) low = middle;
    else high = middle;
  }
  return Math.abs((times[high] ?? 0) - time) < Math.abs((times[low] ?? 0) - time) ? high : low;
}

export function linkedFrame(frame: number, a: Timeline, b: Timeline): number {
  return nearestFrame(b.times, linkedTime(a.times[frame] ?? 0, a, b));
}

/** Seconds from impact, or null while impact is not pegged. */
export function timeFromImpact(line: Timeline, frame: number): number | null {
  const impact = pegTime(line, "impact");
  return impact === undefined ? null : (line.times[frame] ?? 0) - impact;
}
