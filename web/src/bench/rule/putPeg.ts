import { CHECKPOINTS, PEG_WORDS, type PegName } from "../../words";
import { onOf, pegsOf, type Side } from "../benchState";
import type { Bench } from "../benchStore";
import type { Pegs } from "./pegLink";

/** The checkpoint whose peg a frame would pass, if a peg were set there against the order of the swing. */
export function outOfOrder(pegs: Pegs, name: PegName, frame: number): PegName | null {
  const order = CHECKPOINTS.map(([each]) => each as PegName);
  const own = order.indexOf(name);
  if (own < 0) return null;
  const passed = order.find((other, i) => {
    const its = pegs[other];
    return its !== undefined && i !== own && (i < own ? its >= frame : its <= frame);
  });
  return passed ?? null;
}

/** Sets a peg of a stage on a frame, where none is said on the one that is shown, or takes it away; says what moved. */
export function putPeg(bench: Bench, name: PegName, frame?: number | null, side?: Side): void {
  const { sides, stands, active, edit, say, set } = bench.getState();
  const on = side ?? active;
  const state = sides[on];
  if (!state) return;
  const to = frame === undefined ? stands[on].frame : frame;
  const pegs = pegsOf(onOf(state));
  const was = pegs[name];
  set({ active: on, playing: null });
  const taken = onOf(state).pegs.find((peg) => peg.name === name)?.accepted;
  if (was === to && !taken) return; // one that was taken as proposed is sure once a hand puts it there
  edit(on, { kind: "peg", name, frame: to, between: false, accepted: false });
  const words = PEG_WORDS[name];
  const passed = to === null ? null : outOfOrder(pegs, name, to);
  if (passed)
    say(
      `${words} on frame ${to} lies on the wrong side of ${PEG_WORDS[passed].toLowerCase()} on frame ${pegs[passed]}: one of them is not right (Ctrl Z takes it back).`,
    );
  else if (was !== undefined && was !== to)
    say(
      to === null
        ? `${words}: the peg on frame ${was} is taken away (Ctrl Z brings it back).`
        : `${words}: the peg has moved from frame ${was} to ${to} (Ctrl Z takes it back).`,
    );
}
