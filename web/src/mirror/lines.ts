import type { Hand } from "../words";

export type LineName = "trail" | "lead" | "plumb" | "seat";

/** Upright lines as shares of the picture's width; those that are not there are null. */
export type Lines = Record<LineName, number | null>;

export type LineSet = "hips" | "plumb" | "seat";

export const SETS: Record<LineSet, LineName[]> = {
  hips: ["trail", "lead"],
  plumb: ["plumb"],
  seat: ["seat"],
};

const START: Record<LineName, number> = { trail: 0.42, lead: 0.58, plumb: 0.4, seat: 0.4 };

/** Lines as they stand before anybody has moved them; a left-handed player's are the other way round. */
export function startOf(set: LineSet, hand: Hand): Lines {
  const place = (name: LineName) => {
    if (!SETS[set].includes(name)) return null;
    return hand === "left" ? 1 - START[name] : START[name];
  };
  return { trail: place("trail"), lead: place("lead"), plumb: place("plumb"), seat: place("seat") };
}

/** A line put somewhere, never out of the picture. */
export function moved(lines: Lines, name: LineName, to: number): Lines {
  return { ...lines, [name]: Math.min(0.98, Math.max(0.02, to)) };
}

/** Lines as they were kept, where they make sense. */
export function keptLines(text: string | null, set: LineSet, hand: Hand): Lines {
  const start = startOf(set, hand);
  try {
    const kept: unknown = JSON.parse(text ?? "null");
    if (typeof kept !== "object" || kept === null) return start;
    for (const name of SETS[set]) {
      const place = (kept as Record<string, unknown>)[name];
      if (typeof place === "number" && place >= 0 && place <= 1) start[name] = place;
    }
  } catch {
    // what cannot be read was not kept
  }
  return start;
}
