import { beyond } from "../readings/band";
import type { Reading } from "../readings/reading";

// What needs a look before what is as the model asks.
const RANK: Record<string, number> = { below: 0, above: 0, edge: 1, undecided: 2, inside: 3 };

/** How far outside its band a value lies, in widths of its own interval. */
function surely({ value, u95, band }: Reading): number {
  if (value === null || !u95 || !band) return 0;
  return beyond(band, value) / u95;
}

/** The readings that a model has a band for, those outside first, the surest of these first of all. */
export function byStanding(readings: Reading[]): Reading[] {
  const banded = readings.filter((each) => each.status === "ok" && each.standing !== null);
  const rank = (each: Reading) => RANK[each.standing ?? ""] ?? 3;
  return banded.sort((a, b) => rank(a) - rank(b) || surely(b) - surely(a));
}

/** What can be said of the set-up and is not said already against a band. */
export function bySetUp(readings: Reading[]): Reading[] {
  return readings.filter(
    (each) => each.at === "address" && each.status === "ok" && each.standing === null && each.value !== null,
  );
}
