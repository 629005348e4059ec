import { useEffect } from "react";
import type { Checkpoint } from "../words";
import { KNOWN_LENGTH, MAT, markAt, PLUMB } from "./benchState";
import type { Bench } from "./benchStore";
import { belongs, marksOf } from "./marks/round";
import { CHECKPOINTS } from "./rule/PegStrip";

export const KEYS: [string, string][] = [
  ["← →", "one frame back, on (or , and .)"],
  ["Shift ← →", "ten frames back, on"],
  ["Space", "play, stand still (where no button has the focus)"],
  ["- =", "play slower, faster: 1/16 to 1/1 of real time"],
  ["O", "loop from the peg before to the peg after"],
  ["hold Z X", "shuttle back, on: faster the longer it is held"],
  ["[ ]", "to the peg before, after"],
  ["A T I", "set the peg address, top, impact on this frame"],
  ["Shift I", "impact lies between this frame and the next"],
  ["Shift 1 … 9", "set any of the nine pegs, in the order of the swing"],
  ["G", "set all proposed pegs"],
  ["Enter", "take the proposed marks of this frame, or the one in hand; Shift: all of them"],
  ["N", "the round: from mark to mark through the checkpoints; again: skip this one"],
  ["H", "the mark in hand is hidden on this frame"],
  ["D", "the doubted marks, worst first"],
  ["E", "the events that are no checkpoints"],
  [";", "the gauges that stay on the stages"],
  ["{ }", "the swing starts, ends at this frame of its clip"],
  ["J", "the swing's window in its clip"],
  ["W Q", "larger, smaller (or wheel, or two fingers)"],
  ["0", "the whole picture, or the crop to the player"],
  ["Y", "zoom both stages alike, or each alone"],
  ["1 … 9", "take a mark of the group in hand: click to place it"],
  ["K, U", "draw the known length; draw along an upright edge"],
  ["C", "click the mat's four corners; where the camera stood follows from them"],
  ["← → ↑ ↓", "with a mark chosen: nudge it a tenth of a screen pixel; Shift a whole one"],
  ["Delete", "remove the chosen mark, known length, plumb line or mat"],
  ["Esc", "put the tool or the mark down, end the round"],
  ["Ctrl Z, Ctrl Y", "undo, redo"],
  ["S, R", "work on the student's stage, on the reference's"],
  ["V", "see the swing from the other side: face-on, down the line"],
  ["hold F", "see the reference in the student's place"],
  ["B", "lay the reference over the student, or take it away"],
  ["M", "this stage alone, as large as the bench"],
  ["/", "the swing as a whole: its curves, its relay, neither"],
  ["'", "the floor plate: shoes, ball and hips from above"],
  ["L", "link the stages, or let each go alone"],
  ["P", "put this frame into the lesson"],
  ["?", "these keys"],
];

interface Actions {
  pick: () => void;
  help: () => void;
}

/** Whether what has the focus takes letters itself. */
export const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) &&
  !(target instanceof HTMLInputElement && target.type === "checkbox");

const PEG_LETTERS: Record<string, Checkpoint> = { a: "address", t: "top", i: "impact" };

function pegFor(event: KeyboardEvent, key: string): Checkpoint | undefined {
  const digit = /^Digit([1-9])$/.exec(event.code);
  // By the key's place: with Shift it writes another sign on every keyboard.
  return event.shiftKey && digit ? CHECKPOINTS[Number(digit[1]) - 1]?.[0] : PEG_LETTERS[key];
}

/** Whether a sheet lies over the bench: its keys are not the bench's. */
export const underSheet = () => document.querySelector("dialog[open]") !== null;

const onControl = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.closest("button, a, summary") !== null;

const SHUTTLE_START = 1 / 16;
const SHUTTLE_GROWS = 1.08; // with each repeat of the held key
const SHUTTLE_MOST = 1;

function shuttle(bench: Bench, way: 1 | -1, again: boolean): void {
  const { playing, set } = bench.getState();
  const pace = again && playing !== null ? Math.abs(playing) * SHUTTLE_GROWS : SHUTTLE_START;
  set({ playing: way * Math.min(pace, SHUTTLE_MOST) });
}

/** The bench's keys, for as long as the bench is open. */
export function useKeys(bench: Bench, { pick, help }: Actions): void {
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (typing(event.target) || underSheet() || event.altKey) return;
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
      const peg = pegFor(event, key);
      const plan = { wanted: state.wanted, groups: state.groups };
      const mark = event.shiftKey ? undefined : marksOf(side, plan, state.group)[Number(key) - 1];
      if (key === "?") help();
      else if (key === "ArrowLeft" || key === "ArrowRight") {
        used();
        state.step((key === "ArrowLeft" ? -1 : 1) * (event.shiftKey ? 10 : 1));
      } else if (key === "," || key === ".") state.step(key === "," ? -1 : 1);
      else if (key === "[" || key === "]") state.toPeg(key === "[" ? -1 : 1);
      else if (peg) {
        const between = peg === "impact" && event.shiftKey && key === "i";
        state.edit(state.active, { kind: "peg", name: peg, frame: side.frame, between });
      } else if (mark) {
        if (belongs(side, mark)) state.set({ tool: mark.name, selected: null });
      } else if (key === "n") {
        if (state.round) state.skip();
        else state.startRound();
      } else if (key === "h") state.hide();
      else if (key === "u") state.set({ tool: PLUMB, selected: null });
      else if (key === "c")
        state.set(side.on.mat ? { tool: null, selected: MAT } : { tool: MAT, selected: null });
      else if (key === "k") state.set({ tool: KNOWN_LENGTH, selected: null });
      else if (key === "Escape") state.set({ tool: null, selected: null, round: false });
      else if ((key === "Delete" || key === "Backspace") && state.selected) {
        if (state.selected === MAT) state.edit(state.active, { kind: "mat", value: null });
        else if (state.selected === KNOWN_LENGTH)
          state.edit(state.active, { kind: "calibration", value: null });
        else if (state.selected === PLUMB && side.on.facts)
          state.edit(state.active, { kind: "facts", value: { ...side.on.facts, plumb: null } });
        else if (markAt(side, state.selected))
          state.edit(state.active, { kind: "mark", name: state.selected, frame: side.frame, place: null });
        else state.hide(); // a followed one: it is not to be seen here
        state.set({ selected: null });
      } else if (key === "s" || key === "r") {
        const wanted = key === "s" ? "student" : "reference";
        if (state.sides[wanted]) state.set({ active: wanted, tool: null, selected: null });
      } else if (key === "v") state.turnView();
      else if (key === " ") {
        if (onControl(event.target)) return;
        used();
        state.play();
      } else if (key === "-" || key === "=") state.pace(key === "=" ? 1 : -1);
      else if (key === "o") state.set({ looping: !state.looping });
      else if (key === "b") state.set({ overlay: state.overlay ? 0 : 0.5 });
      else if (key === "m") state.set({ solo: !state.solo });
      else if (key === "f") state.set({ flicker: true });
      else if (key === "z" || key === "x") shuttle(bench, key === "x" ? 1 : -1, event.repeat);
      else if (key === "g") state.acceptPegs();
      else if (key === "y") state.set({ alike: !state.alike });
      else if (key === "/") {
        used();
        state.set({ whole: state.whole === null ? "curves" : state.whole === "curves" ? "relay" : null });
      } else if (key === "'") {
        used();
        state.set({ plate: !state.plate });
      } else if (key === "l") state.set({ linked: !state.linked });
      else if (key === "p") pick();
    };
    const released = (event: KeyboardEvent) => {
      const key = event.key.toLowerCase();
      if (key === "f") bench.getState().set({ flicker: false });
      if (key === "z" || key === "x") bench.getState().set({ playing: null });
    };
    const left = () => bench.getState().set({ flicker: false, playing: null });
    window.addEventListener("keydown", pressed);
    window.addEventListener("keyup", released);
    window.addEventListener("blur", left);
    return () => {
      window.removeEventListener("keydown", pressed);
      window.removeEventListener("keyup", released);
      window.removeEventListener("blur", left);
    };
  }, [bench, pick, help]);
}
