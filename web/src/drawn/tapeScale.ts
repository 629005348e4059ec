import { shown, type Unit, type Units } from "../units";

export interface TapeScale {
  low: number; // in the shown unit
  high: number;
  step: number;
  at: (coreValue: number) => number; // share of the tape, 0 to 1
  ticks: number[];
}

const STEPS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 25, 50, 100, 200, 500, 1000];
const WANTED_TICKS = 6;
const LEAST_ROOM: Record<Unit, number> = {
  m: 0.5,
  m_s: 5,
  ratio: 5,
  to_one: 0.2,
  deg: 2,
  s: 10,
  hours: 0.2,
  sd: 0.5,
  far: 2,
  fast: 0.5,
  rpm: 100,
  shot_deg: 1,
};

/**
 * A stretch of tape that shows all of the given core values with a little room, on round ticks; from nothing on,
 * unless only where they lie to each other is to be seen.
 */
export function tapeScale(values: number[], unit: Unit, units: Units, fromNothing = true): TapeScale {
  // Times of the clock have no nothing to be seen from.
  const all = (unit === "hours" || !fromNothing ? values : [0, ...values]).map((value) =>
    shown(value, unit, units),
  );
  const least = Math.min(...all);
  const most = Math.max(...all);
  const room = Math.max((most - least) * 0.06, LEAST_ROOM[unit]);
  const step = STEPS.find((each) => (most - least + 2 * room) / each <= WANTED_TICKS) ?? 2000;
  const low = Math.floor((least - room) / step) * step;
  const high = Math.ceil((most + room) / step) * step;
  // Tenths do not add up exactly in binary; a tick says what it means.
  const ticks = Array.from({ length: Math.round((high - low) / step) + 1 }, (_, i) =>
    Number((low + i * step).toFixed(1)),
  );
  return { low, high, step, ticks, at: (value) => (shown(value, unit, units) - low) / (high - low) };
}
