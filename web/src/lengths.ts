import { shown, typed, type Units } from "./units";

/** How a length is written: in small units, as people are tall, or in the large ones of rooms. */
export type Scale = "small" | "person" | "large";

const METRES: Record<string, number> = { m: 1, cm: 0.01, mm: 0.001, ft: 0.3048, in: 0.0254 };
const QUARTERS: Record<string, string> = {
  "¼": " 1/4",
  "½": " 1/2",
  "¾": " 3/4",
  "⅛": " 1/8",
  "⅜": " 3/8",
  "⅝": " 5/8",
  "⅞": " 7/8",
};
const NUMBER = String.raw`\d+\/\d+|\d+(?:[.,]\d+)?(?:\s+\d+\/\d+)?|[.,]\d+`;
const PART = new RegExp(String.raw`^(${NUMBER})\s*(feet|foot|ft|inches|inch|in|mm|cm|m)?\.?\s*`);
const NAMES: Record<string, string> = { feet: "ft", foot: "ft", inches: "in", inch: "in" };
const SUCH: Record<Scale, Record<Units, string>> = {
  small: { cm: "122 or 1.22 m", in: "48 or 4′" },
  person: { cm: "172 or 1.72 m", in: "5′ 9½″ or 69.5" },
  large: { cm: "4.2 or 420 cm", in: "13′ 9″ or 13.8" },
};
const SAME_M = 5e-4; // half of what one decimal place of a centimetre shows

/** The unit that a bare number is in. */
export function lengthUnit(scale: Scale, units: Units): string {
  if (scale !== "large") return units;
  return units === "in" ? "ft" : "m";
}

/**
 * A length as people write it, in metres: 122, 122,5, 1.22 m, 48 in, 5′ 9½″, 5 ft 9 1/2 in, 5'9. A bare
 * number is in the unit in use; after feet it is inches. Null when it is none.
 */
export function lengthFrom(text: string, units: Units, scale: Scale = "small"): number | null {
  let rest = text.trim().toLowerCase();
  rest = rest.replace(/[′’']{2}|[″”"]/g, " in ").replace(/[′’']/g, " ft ");
  rest = rest.replace(/[¼½¾⅛⅜⅝⅞]/g, (sign) => QUARTERS[sign] ?? sign).trim();
  let total = 0;
  let before = "";
  for (let parts = 0; rest !== ""; parts++) {
    const found = PART.exec(rest);
    if (!found) return null;
    const bare = before === "ft" ? "in" : parts === 0 ? lengthUnit(scale, units) : "";
    const unit = found[2] ? (NAMES[found[2]] ?? found[2]) : bare;
    const per = METRES[unit];
    // Feet and then inches; nothing else comes in two parts.
    if (per === undefined || (parts > 0 && !(before === "ft" && unit === "in"))) return null;
    total += amount(found[1] ?? "") * per;
    before = unit;
    rest = rest.slice(found[0].length);
  }
  return before === "" ? null : total;
}

/** A length as it stands in a field: 122.0, or of a player or a room 5′ 9½″. */
export function lengthText(length_m: number, units: Units, scale: Scale = "small"): string {
  if (scale === "small") return shown(length_m, "m", units).toFixed(1);
  if (units === "cm")
    return scale === "large" ? length_m.toFixed(2) : String(Number((length_m * 100).toFixed(1)));
  const halves = Math.round((length_m / (METRES.in ?? 1)) * 2);
  const inches = Math.floor((halves % 24) / 2);
  const half = halves % 2 ? "½" : "";
  return `${Math.floor(halves / 24)}′ ${half && !inches ? "" : inches}${half}″`;
}

/** How tall somebody is, with its unit: 168.9 cm, 5′ 6½″. */
export function tallness(length_m: number, units: Units): string {
  const text = lengthText(length_m, units, "person");
  return units === "cm" ? `${text} cm` : text;
}

/** What was typed over a length that was there: what only looks the same is that length itself. */
export function lengthOver(
  text: string,
  there_m: number | null,
  units: Units,
  scale: Scale = "small",
): number | null {
  if (there_m !== null && text === lengthText(there_m, units, scale)) return there_m;
  const said = lengthFrom(text, units, scale);
  return said !== null && there_m !== null && Math.abs(said - there_m) < SAME_M ? there_m : said;
}

/** Why a length will not do: "Between 0.5 and 3 m, such as …"; empty when it will. */
export function lengthTrouble(
  length_m: number | null,
  low: number,
  high: number,
  units: Units,
  scale: Scale = "small",
): string {
  if (length_m !== null && length_m >= low && length_m <= high) return "";
  const unit = lengthUnit(scale, units);
  const from = (value: number) => Number((value / (METRES[unit] ?? 1)).toFixed(value < 1 ? 1 : 0));
  const such = SUCH[scale][units];
  return `A length from ${from(low)} to ${from(high)} ${unit}, such as ${such}.`;
}

function amount(text: string): number {
  const [whole = "", fraction] = text.includes("/") && !/\s/.test(text) ? ["0", text] : text.split(/\s+/);
  const [over = "0", under = "1"] = (fraction ?? "0/1").split("/");
  return typed(whole) + Number(over) / Number(under);
}
