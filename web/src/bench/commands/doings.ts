import { createContext, useContext, useEffect, useRef } from "react";
import type { Bench } from "../benchStore";
import { type Call, type Doing, ON_BENCH } from "./benchDoings";
import { elsewhere } from "./match";
import { type CommandId, commandOf } from "./table";

/** What parts of the bench that are on the screen do for a command: the latest first. */
export class Doings {
  private readonly offered = new Map<CommandId, Doing[]>();

  offer(id: CommandId, doing: Doing): () => void {
    this.offered.set(id, [doing, ...(this.offered.get(id) ?? [])]);
    return () =>
      this.offered.set(
        id,
        (this.offered.get(id) ?? []).filter((each) => each !== doing),
      );
  }

  of(id: CommandId): Doing | undefined {
    return this.offered.get(id)?.[0];
  }
}

export const DoingsContext = createContext(new Doings());

/** Does a command for as long as a part is on the screen, or `may`. */
export function useDoing(id: CommandId, doing: Doing, may = true): void {
  const doings = useContext(DoingsContext);
  const latest = useRef(doing);
  latest.current = doing;
  useEffect(
    () => (may ? doings.offer(id, (call, bench) => latest.current(call, bench)) : undefined),
    [doings, id, may],
  );
}

/** Does a command if it can be done here and now, and says why where it cannot. */
export function perform(bench: Bench, doings: Doings, id: CommandId, call: Call = {}): void {
  const { at, idle } = commandOf(id);
  const state = bench.getState();
  if (at && !at.includes(state.station)) {
    state.say(elsewhere(id));
    return;
  }
  const doing = doings.of(id) ?? ON_BENCH[id];
  const done = doing ? doing(call, bench) : false;
  if (typeof done === "string") state.say(done);
  else if (done === false) state.say(idle ?? "That cannot be done here.");
}

/** Ends what a held key did. */
export function release(bench: Bench, id: CommandId): void {
  if (id === "flicker") bench.getState().set({ flicker: false });
  if (id === "uncover") bench.getState().set({ uncovered: false });
  if (id === "pull_back" || id === "pull_on") bench.getState().set({ playing: null });
}
