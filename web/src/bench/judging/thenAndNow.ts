import { changeWords, STATE_WORDS, settlesWords } from "../../drawn/changeWords";
import { type Units, withSign } from "../../units";
import { momentWords, READING_WORDS, SIGNED } from "../../words";
import type { Judgement } from "./verdict";

/** A focus of the last lesson, and what has become of its goal. */
export type LastFocus = Judgement["earlier"][number];

/** What was read then, or now: "Pelvis sway at the top: −12.4 cm." */
export function endsWords({ goal, change }: LastFocus, end: "then" | "now", units: Units): string {
  if (!goal || !change) return "";
  const value = withSign(change[end], goal.unit, units, SIGNED.has(goal.reading));
  return `${READING_WORDS[goal.reading] ?? goal.reading}, ${momentWords(goal.at).toLowerCase()}: ${value}.`;
}

/** What is read now, whether that is a change, and how the goal stands. */
export function verdictWords(last: LastFocus, units: Units): string {
  const { goal, change, state } = last;
  if (!goal || !change) return "";
  const told = changeWords(change, goal.unit, units);
  const sentences = [
    endsWords(last, "now", units),
    `${told.charAt(0).toUpperCase()}${told.slice(1)}.`,
    state ? `${STATE_WORDS[state]}.` : "",
    settlesWords(change),
  ];
  return sentences.filter(Boolean).join(" ");
}
