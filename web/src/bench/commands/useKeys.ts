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
const underSheet = () => document.querySelector("dialog[open], [role=dialog][data-modal]") !== null;

const onControl = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.closest("button, a, summary, form, input") !== null;

// What a control that has the focus does with the key itself.
const OF_CONTROLS: CommandId[] = ["run", "accept", "accept_all"];

/** The bench's keys, for as long as the bench is open. */
export function useKeys(bench: Bench, doings: Doings): void {
  useEffect(() => {
    const down = new Set<CommandId>();
    const pressed = (event: KeyboardEvent) => {
      if (event.defaultPrevented || typing(event.target) || underSheet()) return;
      const found = meant(event, bench.getState().station);
      if (!found || (OF_CONTROLS.includes(found.id) && onControl(event.target))) return;
      event.preventDefault();
      if (event.repeat && !found.here) return;
      if (commandOf(found.id).held) down.add(found.id);
      perform(bench, doings, found.id, { place: found.place, again: event.repeat });
    };
    const letGo = () => {
      for (const id of down) release(bench, id);
      down.clear();
    };
    window.addEventListener("keydown", pressed);
    window.addEventListener("keyup", letGo);
    window.addEventListener("blur", letGo);
    return () => {
      window.removeEventListener("keydown", pressed);
      window.removeEventListener("keyup", letGo);
      window.removeEventListener("blur", letGo);
    };
  }, [bench, doings]);
}
