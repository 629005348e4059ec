import type { Side } from "../benchState";
import { linkedTime, nearestFrame, type Timeline } from "./pegLink";

const LEFT = 72; // room for the names of the two rows
const RIGHT = 24;

export interface RulerLayout {
  main: Side;
  positions: Record<Side, number[]>; // x of every frame
  frameAt: (side: Side, x: number) => number;
  xOf: (line: Timeline, time: number) => number; // of a time of any clip that shares pegs
}

/** Where every frame lies on the ruler: over the swing's real time, the reference stretched to it. */
export function layRuler(
  student: Timeline | null,
  reference: Timeline | null,
  window: { first: number; last: number },
  width: number,
): RulerLayout | null {
  const ruler = student ?? reference;
  if (!ruler || width === 0) return null;
  const main: Side = student ? "student" : "reference";
  const first = ruler.times[window.first] ?? 0;
  const last = ruler.times[window.last] ?? 1;
  const room = Math.max(width - LEFT - RIGHT, 1);
  const x = (time: number) => LEFT + ((time - first) / (last - first)) * room;
  const own = ruler.times.map(x);
  const stretched =
    student && reference ? reference.times.map((t) => x(linkedTime(t, reference, student))) : [];
  const positions =
    main === "student" ? { student: own, reference: stretched } : { student: [], reference: own };
  return {
    main,
    positions,
    frameAt: (side, at) => nearestFrame(positions[side], at),
    xOf: (line, time) => x(linkedTime(time, line, ruler)),
  };
}
