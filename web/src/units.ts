import type { Schemas } from "./api/client";

export type Units = Schemas["Me"]["units"];
export type Unit = Schemas["ReadingOut"]["unit"];

const PER_METRE: Record<Units, number> = { cm: 100, in: 100 / 2.54 };
const FACTOR: Record<Exclude<Unit, "m">, number> = { ratio: 100, deg: 1, s: 1000, hours: 1, sd: 1 };
const SIGN: Record<Exclude<Unit, "m">, string> = {
  ratio: "%",
  deg: "°",
  s: "ms",
  hours: "o'clock",
  sd: "sd",
};
const DIGITS: Record<Unit, number> = { m: 1, ratio: 0, deg: 0, s: 0, hours: 1, sd: 1 };

/** A core value in the unit it is shown in: centimetres or inches, percent, degrees, milliseconds. */
export function shown(value: number, unit: Unit, units: Units): number {
  return value * (unit === "m" ? PER_METRE[units] : FACTOR[unit]);
}

export function unitSign(unit: Unit, units: Units): string {
  return unit === "m" ? units : SIGN[unit];
}

export function metres(value: number, units: Units): number {
  return value / PER_METRE[units];
}

/** "−13.2", with a real minus sign; shares without decimals. */
export function number(value: number, unit: Unit, units: Units, signed = false): string {
  const text = Math.abs(shown(value, unit, units)).toFixed(DIGITS[unit]);
  const zero = Number(text) === 0;
  return `${value < 0 && !zero ? "−" : signed && !zero ? "+" : ""}${text}`;
}

/** "−13.2 ± 1.1 cm"; degrees close up to their number. */
export function withError(value: number, u95: number, unit: Unit, units: Units, signed = false): string {
  const gap = unit === "deg" ? "" : " ";
  return `${number(value, unit, units, signed)} ± ${number(u95, unit, units)}${gap}${unitSign(unit, units)}`;
}

/** Milliseconds from impact: "−283 ms". */
export function fromImpact(seconds: number | null): string {
  if (seconds === null) return "impact not pegged";
  const ms = Math.round(seconds * 1000);
  return `${ms < 0 ? "−" : "+"}${Math.abs(ms)} ms`;
}
