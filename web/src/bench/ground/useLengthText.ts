import { useCallback, useEffect, useState } from "react";
import { metres, shown, typed, type Units } from "../../units";

const MOST_M = 20;
const SAME_M = 5e-4; // half of what one decimal place shows

/**
 * The text of a length's field. It follows the length itself, not the object that carries it: an answer
 * of the server that changes nothing must not wipe what is being typed.
 */
export function useLengthText(length_m: number | null | undefined, units: Units) {
  const known = length_m ?? null;
  const [text, setText] = useState("");
  const write = useCallback(
    () => setText(known === null ? "" : shown(known, "m", units).toFixed(1)),
    [known, units],
  );
  useEffect(write, [write]);
  const said = metres(typed(text), units);
  const same = known !== null && Math.abs(said - known) < SAME_M;
  /** What was typed, in metres: null where it is no length. What only looks the same is the length itself. */
  const read = () => (same ? known : said > 0 && said <= MOST_M ? said : null);
  return { text, setText, write, read };
}
