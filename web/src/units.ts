import type { Schemas } from "./api/client";

export type Units = Schemas["Me"]["units"];
export type Unit = "m" | "ratio";

const PER_METRE: Record<Units, number> = { cm: 100, in: 100 / 2.54 };

/** A core value (metres or a ratio) in the unit it is shown in. */
export function shown(value: number, unit: Unit, units: Units): number {
  return unit === "m" ? value * PER_METRE[units] : value * 100;
}

export function unitSign(unit: Unit, units: Units): string {
  return unit === "m" ? units : "%";
}

export function metres(value: number, units: Units): number {
  return value / PER_METRE[units];
}

/** "−13.2", with a real minus sign; shares without decimals. */
export function number(value: number, unit: Unit, units: Units, signed = false): string {
  const digits = unit === "m" ? 1 : 0;
  const text = Math.abs(shown(value, unit, units)).toFixed(digits);
  const zero = Number(text) === 0;
  return `${value < 0 && !zero ? "−" : signed && !zero ? "+" : ""}${text}`;
}

/** "−13.2 ± 1.1 cm" */
export function withError(value: number, u95: number, unit: Unit, units: Units, signed = false): string {
  return `${number(value, unit, units, signed)} ± ${number(u95, unit, units)} ${unitSign(unit, units)}`;
}

/** Milliseconds from impact: "−283 ms". */
export function fromImpact(seconds: number | null): string {
  if (seconds === null) return "impact not pegged";
  const ms = Math.round(seconds * 1000);
  return `${ms < 0 ? "−" : "+"}${Math.abs(ms)} ms`;
}
