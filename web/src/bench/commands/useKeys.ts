import { useEffect } from "react";
import type { Bench } from "../benchStore";
import { type Doings, perform, release } from "./doings";
import { meant } from "./match";
import { type CommandId, commandOf } from "./table";

/** Whether what has the focus takes letters itself. */
const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) &&
  !(target instanceof HTMLInputElement && ["checkbox", "radio"].includes(target.type));

/** Whether a sheet lies over the bench: its keys are not the bench's. */
const underSheet = () => document.querySelector("dialog[open]") !== null;

const onControl = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.closest("button, a, summary, form, input") !== null;

// What a control that has the focus does with the key itself.
const OF_CONTROLS: CommandId[] = ["run", "accept", "accept_all"];

// What is done again and again while its key is down.
const REPEATED: CommandId[] = [
  "step_back",
  "step_on",
  "ten_back",
  "ten_on",
  "peg_before",
  "peg_after",
  "pull_back",
  "pull_on",
  "larger",
  "smaller",
  "undo",
  "redo",
];

/** What scrolls by the keys, once it has the focus. */
const onScroll = (target: EventTarget | null) => target instanceof HTMLElement && "scrolls" in target.dataset;
const SCROLLING = /^(Arrow|Page)/;

/** The bench's keys, for as long as the bench is open. */
export function useKeys(bench: Bench, doings: Doings): void {
  useEffect(() => {
    const down = new Map<string, CommandId>(); // by the place of the key that holds it
    const pressed = (event: KeyboardEvent) => {
      if (event.defaultPrevented || typing(event.target) || underSheet()) return;
      const found = meant(event, bench.getState().station);
      if (!found || (OF_CONTROLS.includes(found.id) && onControl(event.target))) return;
      if (SCROLLING.test(event.key) && onScroll(event.target)) return;
      event.preventDefault();
      // A key that is held too long does not turn things on and off.
      if (event.repeat && !(found.here && REPEATED.includes(found.id))) return;
      if (commandOf(found.id).held) down.set(event.code || event.key, found.id);
      perform(bench, doings, found.id, { place: found.place, again: event.repeat });
    };
    const letGo = (key: string) => {
      const id = down.get(key);
      down.delete(key);
      if (id) release(bench, id);
    };
    // Other keys come and go meanwhile: a swing is stepped through while the reference stands in its place.
    const released = (event: KeyboardEvent) => letGo(event.code || event.key);
    const left = () => [...down.keys()].forEach(letGo);
    window.addEventListener("keydown", pressed);
    window.addEventListener("keyup", released);
    window.addEventListener("blur", left);
    return () => {
      window.removeEventListener("keydown", pressed);
      window.removeEventListener("keyup", released);
      window.removeEventListener("blur", left);
    };
  }, [bench, doings]);
}
