import type { Schemas } from "../api/client";

export type Meaning = Schemas["MarkerMeaning"];
export type Axis = Meaning["up"];
export type Hand = Schemas["MeaningForHand"]["hand"];

/** The file's axes, each with its two ways. */
export const AXES: Axis[] = ["+x", "-x", "+y", "-y", "+z", "-z"];

/** What a swing cannot be read without. */
export const NEEDED = ["lead_hip", "trail_hip", "lead_ankle", "trail_ankle"];

/** An axis with its way, as it is said. */
export const axisWords = (axis: Axis) => `${axis[0] === "-" ? "−" : "+"}${axis[1]?.toUpperCase()}`;

/** A label's meaning said anew; the empty one takes it away. */
export function said(meaning: Meaning, label: string, mark: string): Meaning {
  const { [label]: _, ...rest } = meaning.marks;
  return { ...meaning, marks: mark ? { ...rest, [label]: mark } : rest };
}

/** The marks for which nothing stands though a swing cannot be read without them. */
export function missing(meaning: Meaning): string[] {
  const there = new Set(Object.values(meaning.marks));
  return NEEDED.filter((name) => !there.has(name));
}

/** How many labels stand for each mark: two of one lie on either side of it. */
export function counted(meaning: Meaning): Map<string, number> {
  const counts = new Map<string, number>();
  for (const mark of Object.values(meaning.marks)) counts.set(mark, (counts.get(mark) ?? 0) + 1);
  return counts;
}
