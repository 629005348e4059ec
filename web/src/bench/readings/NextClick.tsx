import { useEffect, useRef } from "react";
import type { Schemas } from "../../api/client";
import { CHECKPOINT_WORDS, MARK_WORDS, PEG_WORDS, READING_WORDS, VIEW_WORDS } from "../../words";
import { useBench, useBenchStore } from "../benchContext";
import type { Side } from "../benchState";
import { useDoing } from "../commands/doings";
import { PROPOSED, takeNeed } from "./follow";
import { useFirstLook } from "./useFirstLook";

type Next = Schemas["NextOut"];

const NOTHING: Next[] = [];
const MEASURES: Partial<Record<Next["need"]["kind"], string>> = {
  known_length: "draw a known length, or click the mat",
  mat: "click the mat's corners",
  plumb: "draw along an upright edge",
  one_swing: "say whether both views show one swing",
};

/** A need as something to do. */
export function asked({ kind, name, at, view }: Next["need"]): string {
  const seen = kind === "look" || kind === "check" || name === PROPOSED;
  const from = seen ? `, ${view ? VIEW_WORDS[view].toLowerCase() : "both views"}` : "";
  return `${doing({ kind, name, at })}${from}`;
}

function doing({ kind, name, at }: Omit<Next["need"], "view">): string {
  if (kind === "mark")
    return `mark the ${MARK_WORDS[name]?.toLowerCase()} at ${at ? CHECKPOINT_WORDS[at].toLowerCase() : "a peg"}`;
  if (kind === "look") return `look at ${CHECKPOINT_WORDS[at ?? "address"].toLowerCase()} and take its marks`;
  if (kind === "check")
    return `see whether ${CHECKPOINT_WORDS[at ?? "address"].toLowerCase()} is pegged on its very frame`;
  if (kind === "peg" && name === PROPOSED) return "peg what is proposed";
  if (kind === "peg") return `peg ${PEG_WORDS[name as keyof typeof PEG_WORDS]?.toLowerCase()}`;
  return MEASURES[kind] ?? "film it from the other side too";
}

const named = (readings: string[]) =>
  readings.map((each) => READING_WORDS[each]?.toLowerCase() ?? each).join(", ");

/** What to do next on a stage's swing and what it brings; where a machine has looked, it leads on from there. */
export function NextClick({ side }: { side: Side }) {
  const bench = useBenchStore();
  const cheapest = useBench((state) => state.sides[side]?.next[0]);
  const offered = useFirstLook(side)?.next ?? NOTHING;
  // Whoever is at something stays with it as long as it is worth it, though another thing is worth more by now.
  const at = useRef("");
  const first = offered.find(({ need }) => JSON.stringify(need) === at.current) ?? offered[0];
  const led = useBench((state) => state.led);
  const set = useBench((state) => state.set);
  const next = first ?? cheapest;
  const key = first ? JSON.stringify(first.need) : "";
  at.current = led ? key : "";
  // What is worth most has changed: go on to it, as long as somebody is led.
  useEffect(() => {
    if (led && key) takeNeed(bench, side, JSON.parse(key));
    else if (led) set({ led: false });
  }, [led, key, bench, side, set]);
  useDoing("next_look", () => set({ led: !led, round: false }), first !== undefined);
  if (!next) return null;
  const brings = next.gives.length
    ? `gives ${named(next.gives)}`
    : next.helps
      ? `${next.helps} readings need it`
      : next.narrows.length
        ? `for ${named(next.narrows)}`
        : "";
  return (
    <button
      type="button"
      className={`plate flex items-baseline gap-1 border-brass p-1.5 text-left text-xs hover:bg-brass/20 ${led ? "bg-brass/20" : ""}`}
      onClick={() => (first ? set({ led: !led, round: false }) : takeNeed(bench, side, next.need))}
      aria-pressed={first ? led : undefined}
      data-testid="next-click"
    >
      <b className="whitespace-nowrap">{led ? "Now:" : "Next:"}</b>
      <span>
        {asked(next.need)} {brings && <span className="opacity-75">({brings})</span>}
      </span>
      {first && <kbd className="num ml-auto opacity-80 whitespace-nowrap">{hintOf(led)}</kbd>}
    </button>
  );
}

const hintOf = (led: boolean) => (led ? "Shift N stops" : "Shift N");
