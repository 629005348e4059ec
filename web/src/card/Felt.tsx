import type { Schemas } from "../api/client";
import { day } from "../parts/when";
import { placesWords } from "../talk/felt";

const SHOWN = 5;

/** Where drills were felt, and what was said of it, the latest first. */
export function Felt(props: { practised: Schemas["PractisedOut"][]; hand: "left" | "right" }) {
  const told = props.practised.filter(({ places, words }) => places.length || words).slice(0, SHOWN);
  if (!told.length) return null;
  return (
    <ul className="mt-3 grid gap-2 text-sm">
      {told.map((tick) => (
        <li key={tick.id} className="border-t border-base-content/20 pt-1.5">
          {day(tick.day)}, {tick.name}
          {tick.places.length > 0 && (
            <span className={`block ${tick.speaks_up ? "font-semibold" : ""}`}>
              Felt in: {placesWords(tick.places, props.hand)}
            </span>
          )}
          {tick.words && <q className="block break-words">{tick.words}</q>}
        </li>
      ))}
    </ul>
  );
}
