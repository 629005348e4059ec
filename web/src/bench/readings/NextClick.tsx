import type { Schemas } from "../../api/client";
import { CHECKPOINT_WORDS, MARK_WORDS, PEG_WORDS, READING_WORDS } from "../../words";

type Next = Schemas["NextOut"];

const MEASURES: Partial<Record<Next["need"]["kind"], string>> = {
  known_length: "draw a known length, or click the mat",
  mat: "click the mat's corners",
  plumb: "draw along an upright edge",
};

/** A need as something to do. */
export function asked({ kind, name, at }: Next["need"]): string {
  if (kind === "mark")
    return `mark the ${MARK_WORDS[name]?.toLowerCase()} at ${at ? CHECKPOINT_WORDS[at].toLowerCase() : "a peg"}`;
  if (kind === "peg") return `peg ${PEG_WORDS[name as keyof typeof PEG_WORDS]?.toLowerCase()}`;
  return MEASURES[kind] ?? "film it from the other side too";
}

const named = (readings: string[]) =>
  readings.map((each) => READING_WORDS[each]?.toLowerCase() ?? each).join(", ");

/** The cheapest thing to do next, and what it brings. */
export function NextClick({ next, take }: { next: Next; take: (need: Next["need"]) => void }) {
  const brings = next.gives.length
    ? `gives ${named(next.gives)}`
    : next.helps
      ? `${next.helps} readings need it`
      : `narrows ${named(next.narrows)}`;
  return (
    <button
      type="button"
      className="plate flex items-baseline gap-1 border-brass p-1.5 text-left text-xs hover:bg-brass/20"
      onClick={() => take(next.need)}
      data-testid="next-click"
    >
      <b className="whitespace-nowrap">Next:</b>
      <span>
        {asked(next.need)} <span className="opacity-75">({brings})</span>
      </span>
    </button>
  );
}
