import { shown, type Unit, type Units } from "../units";

export interface TapeScale {
  low: number; // in the shown unit
  high: number;
  step: number;
  at: (coreValue: number) => number; // share of the tape, 0 to 1
  ticks: number[];
}

const STEPS = [0.5, 1, 2, 5, 10, 20, 25, 50, 100, 200, 500];
const WANTED_TICKS = 6;

/** A stretch of tape that shows all of the given core values with a little room, on round ticks. */
export function tapeScale(values: number[], unit: Unit, units: Units): TapeScale {
  const all = [0, ...values].map((value) => shown(value, unit, units));
  const least = Math.min(...all);
  const most = Math.max(...all);
  const room = Math.max((most - least) * 0.06, unit === "m" ? 0.5 : 5);
  const step = STEPS.find((each) => (most - least + 2 * room) / each <= WANTED_TICKS) ?? 1000;
  const low = Math.floor((least - room) / step) * step;
  const high = Math.ceil((most + room) / step) * step;
  const ticks = Array.from({ length: Math.round((high - low) / step) + 1 }, (_, i) => low + i * step);
  return { low, high, step, ticks, at: (value) => (shown(value, unit, units) - low) / (high - low) };
}
