import { CHECKPOINT_WORDS, CHECKPOINTS, type Checkpoint, PEG_WORDS, type PegName } from "../../words";
import {
  type BenchState,
  KNOWN_LENGTH,
  MAT,
  OTHER,
  onOf,
  PLUMB,
  paired,
  pegsOf,
  type Side,
} from "../benchState";
import type { Bench } from "../benchStore";
import type { Reading } from "./reading";

/** The name of the need to peg all that a machine proposes. */
export const PROPOSED = "proposed";
const PEG_PROPOSED = "Look through the proposed pegs under the stage, then peg them all: G.";

/** Go to the frame a reading came from and open it; for a refused one, take the missing thing in hand. */
export function follow(bench: Bench, side: Side, reading: Reading): void {
  const need = reading.needs[0];
  if (need) {
    takeNeed(bench, side, need);
    return;
  }
  const { sides, goTo, set, focus, show } = bench.getState();
  const now = sides[side];
  if (!now) return;
  // The view that draws it, the one that is seen already before the other.
  const draws = (id: string) =>
    now.views[id]?.gauges.some((gauge) => gauge.shapes.some((shape) => shape.reading === reading.reading));
  const seen = [now.clip.id, ...reading.clips].filter((id) => reading.clips.includes(id));
  const from = seen.find(draws) ?? seen[0];
  if (from && from !== now.clip.id) show(side, from);
  const shown = bench.getState().sides[side];
  const frame = shown && (pegsOf(onOf(shown))[reading.at as Checkpoint] ?? reading.frames[0]);
  const again = focus?.reading === reading.reading && focus.at === reading.at;
  set({
    active: side,
    selected: null,
    tool: null,
    focus: again ? null : { reading: reading.reading, at: reading.at },
  });
  if (frame !== undefined) goTo(side, frame);
}

/** The stage on which a need's view is seen already, else the swing's own. */
function stageFor(state: BenchState, main: Side, { view }: Reading["needs"][number]): Side {
  if (!paired(state)) return main;
  return state.sides[OTHER[main]]?.clip.view === view ? OTHER[main] : main;
}

/** Take the thing in hand that is needed next, on the clip and at the frame where it is needed. */
export function takeNeed(bench: Bench, main: Side, need: Reading["needs"][number]): void {
  const { show, goTo, set, goToStation } = bench.getState();
  const side = stageFor(bench.getState(), main, need);
  const clip = bench
    .getState()
    .sides[side]?.swing.clips.find((each) => each.view === need.view && each.state === "ready");
  if (clip) show(side, clip.id);
  const state = bench.getState().sides[side];
  if (!state) return;
  const on = onOf(state);
  goToStation("mark");
  const frame = need.at ? pegsOf(on)[need.at] : undefined;
  set({ active: side, selected: null, tool: null, notice: null });
  const other = paired(bench.getState()) && bench.getState().sides[OTHER[side]];
  const there = other && need.at ? pegsOf(onOf(other))[need.at] : undefined;
  if (there !== undefined) goTo(OTHER[side], there);
  if (frame !== undefined) goTo(side, frame);
  if (need.kind === "known_length")
    set(on.calibration ? { tool: null, selected: KNOWN_LENGTH } : { tool: KNOWN_LENGTH });
  if (need.kind === "mat") set(on.mat ? { tool: null, selected: MAT } : { tool: MAT });
  if (need.kind === "plumb") set({ tool: PLUMB });
  if (need.kind === "look" && frame === undefined) {
    const proposed = state.clip.proposals.pegs.find((peg) => peg.name === need.at);
    if (proposed) goTo(side, proposed.frame);
  }
  if (need.kind === "peg" && need.name === PROPOSED) set({ notice: PEG_PROPOSED });
  else if (need.kind === "peg" && frame === undefined) {
    const words = PEG_WORDS[need.name as PegName].toLowerCase();
    set({ notice: `Step to “${words}” and peg it: ${need.at ? "Shift 1 … 9" : "under Events, E"}.` });
  }
  if (need.kind === "check" && need.at) {
    const at = CHECKPOINTS.findIndex(([name]) => name === need.at) + 1;
    set({
      notice: `Is this the very frame of “${CHECKPOINT_WORDS[need.at].toLowerCase()}”? Step to it, and peg it: Shift ${at}.`,
    });
  }
  if (need.kind === "mark") {
    const wanted = bench.getState().wanted.find((mark) => mark.name === need.name);
    set({ tool: need.name, ...(wanted ? { group: wanted.group } : {}) });
  }
}
