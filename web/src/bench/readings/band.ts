import type { Reading } from "./reading";

export type Band = NonNullable<Reading["band"]>;

/** The ends that a band has: one that is open asks for nothing there. */
export function endsOf(band: Band | null): number[] {
  return [band?.low, band?.high].filter((end) => end != null);
}

/** How far outside a band a value lies; not above nothing inside it. */
export function beyond(band: Band, value: number): number {
  return Math.max(
    band.low === null ? Number.NEGATIVE_INFINITY : band.low - value,
    band.high === null ? Number.NEGATIVE_INFINITY : value - band.high,
  );
}
