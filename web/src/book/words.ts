import type { Schemas } from "../api/client";
import type { Book } from "../api/queries";
import { number, signBehind, type Units } from "../units";
import { momentWords, READING_WORDS, SIGNED } from "../words";

export type Drill = Book["drills"][number];
export type Model = Book["models"][number];
export type Dispute = Book["disputes"][number];
export type Option = Dispute["options"][number];
export type Band = Option["bands"][number];
export type Clash = Book["clashes"][number];
export type UnitOf = Record<string, Schemas["ReadingKind"]["unit"]>;

export const PHASE_WORDS: Record<Dispute["phase"], string> = {
  set_up: "Set-up",
  going_back: "Going back",
  change: "Change of direction",
  coming_down: "Coming down",
  through: "Through",
};

export const PLACE_WORDS = { home: "at home", range: "on the range" } as const;

/** A part of the body as the trade says it: "trail knee". */
export const spoken = (id: string) => id.replaceAll("_", " ");

/** A band in words: "Pelvis sway top: −6.0 to −0.5 cm". */
export function bandWords(band: Band, units: Units, unitOf: UnitOf): string {
  const unit = unitOf[band.reading] ?? "ratio";
  const said = (value: number) => number(value, unit, units, SIGNED.has(band.reading));
  const sign = signBehind(unit, units);
  const what = `${READING_WORDS[band.reading] ?? spoken(band.reading)} ${momentWords(band.at).toLowerCase()}`;
  const clubs = band.clubs && band.clubs.length < 4 ? ` (${band.clubs.join(", ")})` : "";
  if (band.low == null) return `${what}: at most ${said(band.high ?? 0)}${sign}${clubs}`;
  if (band.high == null) return `${what}: at least ${said(band.low)}${sign}${clubs}`;
  return `${what}: ${said(band.low)} to ${said(band.high)}${sign}${clubs}`;
}

/** The clashes of what a model has chosen; those that need a range of motion say of whom they hold. */
export function clashesOf(clashes: Clash[], chosen: Record<string, string>): Clash[] {
  return clashes.filter(({ options }) => options.every(({ dispute, option }) => chosen[dispute] === option));
}

/** An id for a page of one's own, from its name, that no other has. */
export function idFrom(name: string, taken: string[]): string {
  const plain = name
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "_")
    .replace(/^[^a-z]+|_+$/g, "")
    .slice(0, 34);
  const base = plain.length < 2 ? `own_${plain || "page"}` : plain;
  if (!taken.includes(base)) return base;
  for (let n = 2; ; n++) if (!taken.includes(`${base}_${n}`)) return `${base}_${n}`;
}
