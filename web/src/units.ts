import type { Schemas } from "./api/client";

export type Units = Schemas["Me"]["units"];
export type Unit = Schemas["ColumnOut"]["unit"];

const PER_METRE: Record<Units, number> = { cm: 100, in: 100 / 2.54 };
// A ball flies in metres or yards, and at metres a second or miles an hour.
const PER_FAR: Record<Units, number> = { cm: 1, in: 1 / 0.9144 };
const PER_FAST: Record<Units, number> = { cm: 1, in: 1 / 0.44704 };
type OfLength = "m" | "m_s" | "far" | "fast";
const FACTOR: Record<Exclude<Unit, OfLength>, number> = {
  ratio: 100,
  to_one: 1,
  deg: 1,
  s: 1000,
  hours: 1,
  sd: 1,
  rpm: 1,
  shot_deg: 1,
};
const SIGN: Record<Exclude<Unit, OfLength>, string> = {
  ratio: "%",
  to_one: "to 1",
  deg: "°",
  s: "ms",
  hours: "o'clock",
  sd: "sd",
  rpm: "rpm",
  shot_deg: "°",
};
const DIGITS: Record<Unit, number> = {
  m: 1,
  m_s: 0,
  ratio: 0,
  to_one: 1,
  deg: 0,
  s: 0,
  hours: 1,
  sd: 1,
  far: 0,
  fast: 1,
  rpm: 0,
  shot_deg: 1,
};

/** A core value in the unit it is shown in: centimetres or inches, percent, degrees, milliseconds. */
export function shown(value: number, unit: Unit, units: Units): number {
  return value * factor(unit, units);
}

function factor(unit: Unit, units: Units): number {
  if (unit === "m" || unit === "m_s") return PER_METRE[units];
  if (unit === "far") return PER_FAR[units];
  return unit === "fast" ? PER_FAST[units] : FACTOR[unit];
}

export function unitSign(unit: Unit, units: Units): string {
  if (unit === "far") return units === "cm" ? "m" : "yd";
  if (unit === "fast") return units === "cm" ? "m/s" : "mph";
  if (unit === "m_s") return `${units}/s`;
  return unit === "m" ? units : SIGN[unit];
}

/** A number as somebody typed it, with a point or a comma; NaN when it is none. */
export function typed(text: string): number {
  const plain = text.trim().replace(",", ".").replace("−", "-");
  return /^[-+]?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : Number.NaN;
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

/** What stands behind a number: " cm"; degrees close up to theirs. */
export function signBehind(unit: Unit, units: Units): string {
  return `${unit === "deg" || unit === "shot_deg" ? "" : " "}${unitSign(unit, units)}`;
}

/** "4.2 cm", "15°". */
export function withSign(value: number, unit: Unit, units: Units, signed = false): string {
  return `${number(value, unit, units, signed)}${signBehind(unit, units)}`;
}

/** "−13.2 ± 1.1 cm"; degrees close up to their number. */
export function withError(value: number, u95: number, unit: Unit, units: Units, signed = false): string {
  return `${number(value, unit, units, signed)} ± ${withSign(u95, unit, units)}`;
}

/** Times that are less sure than this tell nothing of a swing, whose way down takes a quarter of a second. */
const SURE_ENOUGH_S = 0.12;

/** A value with its error; of a time that is too unsure, only that. */
export function withErrorOrNothing(
  value: number,
  u95: number,
  unit: Unit,
  units: Units,
  signed = false,
): string {
  if (unit === "s" && u95 > Math.max(SURE_ENOUGH_S, Math.abs(value) / 2))
    return `cannot be told (± ${number(u95, unit, units)} ms)`;
  return withError(value, u95, unit, units, signed);
}

/** Milliseconds from impact: "−283 ms". */
export function fromImpact(seconds: number | null): string {
  if (seconds === null) return "impact not pegged";
  const ms = Math.round(seconds * 1000);
  return `${ms < 0 ? "−" : "+"}${Math.abs(ms)} ms`;
}
