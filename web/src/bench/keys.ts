import { useEffect } from "react";
import type { Bench } from "./benchStore";
import { pegsOf, ROUND } from "./benchStore";
import { PEG_KEYS } from "./MarkRail";

export const KEYS: [string, string][] = [
  ["← →", "one frame back, on (or , and .)"],
  ["Shift ← →", "ten frames back, on"],
  ["[ ]", "to the peg before, after"],
  ["A T I", "set the peg address, top, impact on this frame"],
  ["1 … 5", "take a mark in hand: click to place it"],
  ["K", "draw the known length"],
  ["← → ↑ ↓", "with a mark chosen: nudge it a tenth of a screen pixel; Shift a whole one"],
  ["Delete", "remove the chosen mark"],
  ["Esc", "put the tool or the mark down"],
  ["Ctrl Z, Ctrl Y", "undo, redo"],
  ["S, R", "work on the student's stage, on the reference's"],
  ["V", "see the swing from the other side: face-on, down the line"],
  ["L", "link the stages, or let each go alone"],
  ["P", "put this frame into the lesson"],
  ["?", "these keys"],
];

interface Actions {
  pick: () => void;
  help: () => void;
}

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) &&
  !(target instanceof HTMLInputElement && target.type === "checkbox");

/** The bench's keys, for as long as the bench is open. */
export function useKeys(bench: Bench, { pick, help }: Actions): void {
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (typing(event.target) || event.altKey) return;
      const state = bench.getState();
      const side = state.sides[state.active];
      const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
      const used = () => event.preventDefault();
      if (event.ctrlKey || event.metaKey) {
        if (key === "z") {
          used();
          if (event.shiftKey) state.redo();
          else state.undo();
        }
        if (key === "y") {
          used();
          state.redo();
        }
        return;
      }
      if (!side) return;
      const peg = PEG_KEYS.find(([, letter]) => letter.toLowerCase() === key);
      const mark = ROUND[Number(key) - 1];
      if (key === "?") help();
      else if (key === "ArrowLeft" || key === "ArrowRight") {
        used();
        state.step((key === "ArrowLeft" ? -1 : 1) * (event.shiftKey ? 10 : 1));
      } else if (key === "," || key === ".") state.step(key === "," ? -1 : 1);
      else if (key === "[" || key === "]") state.toPeg(key === "[" ? -1 : 1);
      else if (peg) state.edit(state.active, { kind: "peg", name: peg[0], frame: side.frame });
      else if (mark) {
        if (side.clip.view !== "face_on") return;
        if (mark === "trail_foot_outer" && pegsOf(side.on).address !== side.frame) return;
        state.set({ tool: mark, selected: null });
      } else if (key === "k") state.set({ tool: "known_length" });
      else if (key === "Escape") state.set({ tool: null, selected: null });
      else if ((key === "Delete" || key === "Backspace") && state.selected) {
        state.edit(state.active, { kind: "mark", name: state.selected, frame: side.frame, place: null });
        state.set({ selected: null });
      } else if (key === "s" || key === "r") {
        const wanted = key === "s" ? "student" : "reference";
        if (state.sides[wanted]) state.set({ active: wanted, tool: null, selected: null });
      } else if (key === "v") state.turnView();
      else if (key === "l") state.set({ linked: !state.linked });
      else if (key === "p") pick();
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [bench, pick, help]);
}
