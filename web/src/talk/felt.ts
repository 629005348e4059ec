import type { Schemas } from "../api/client";
import { type Hand, mirrored } from "../words";

export type FeltPlace = Schemas["Tick"]["places"] extends (infer Each)[] | undefined ? Each : never;

/** Felt there, a drill is done wrong or too much: the joint carries it. */
export const SPEAKS_UP: ReadonlySet<FeltPlace> = new Set(["low_back", "lead_knee", "trail_knee"]);

/** "right (back) seat": a place in the words of whoever feels it. */
export function placeWords(place: FeltPlace, hand: Hand): string {
  const [, side, part = place] = /^(lead|trail)_(.+)$/.exec(place) ?? [];
  const words = part.replace(/^thigh_(.+)$/, "$1 of the thigh").replaceAll("_", " ");
  if (!side) return words;
  const lead = mirrored(hand);
  const own = side === "lead" ? `${lead} (front)` : `${lead === "left" ? "right" : "left"} (back)`;
  return `${own} ${words}`;
}

/** Several of them, in a list. */
export const placesWords = (places: FeltPlace[], hand: Hand) =>
  places.map((place) => placeWords(place, hand)).join(", ");
