import { useCallback } from "react";
import type { Units } from "../units";
import { CHECKPOINT_WORDS, type Checkpoint } from "../words";
import { useBench, useBenchStore } from "./benchContext";
import { type Bench, KNOWN_LENGTH, MAT, OTHER, PLUMB, pegsOf, type Reading, type Side } from "./benchStore";
import { NextClick } from "./NextClick";
import { Tape } from "./Tape";

/** The readings of the swing, checkpoint by checkpoint, with the reference's beneath. */
export function Tapes({ units, school }: { units: Units; school?: string }) {
  const bench = useBenchStore();
  const main: Side = useBench((state) => (state.sides.student ? "student" : "reference"));
  const on = useBench((state) => state.sides[main]?.on);
  const readings = useBench((state) => state.sides[main]?.readings);
  const others = useBench((state) => state.sides[OTHER[main]]?.readings);
  const next = useBench((state) => state.sides[main]?.next[0]);
  const go = useCallback(
    (reading: Reading) => follow(bench, main, reading.at, reading.needs[0]),
    [bench, main],
  );
  if (!on || !readings) return null;
  const pegs = pegsOf(on);
  const groups = [...new Set(readings.map((reading) => reading.at))] as Checkpoint[];
  return (
    <section aria-label="Readings" className="plate flex min-h-56 flex-col overflow-y-auto">
      {next && <NextClick next={next} take={(need) => follow(bench, main, need.at ?? "address", need)} />}
      {groups.map((at) => (
        <div key={at}>
          <h2 className="flex items-baseline justify-between bg-pine px-2 py-1 text-sm font-semibold text-paper">
            {CHECKPOINT_WORDS[at]}
            <span className="num text-xs font-normal">
              {pegs[at] === undefined ? "not pegged" : `frame ${pegs[at]}`}
            </span>
          </h2>
          {readings
            .filter((reading) => reading.at === at)
            .map((reading) => (
              <Tape
                key={reading.reading}
                reading={reading}
                reference={others?.find((each) => each.reading === reading.reading && each.at === at)}
                units={units}
                go={go}
              />
            ))}
        </div>
      ))}
      {school && (
        <p className="mt-auto border-t border-pine/20 px-2 py-1 text-xs">
          <span className="mr-1 inline-block h-2.5 w-4 bg-brass/50 align-middle" aria-hidden />
          Band: {school}. Common practice, no source. ± is the 95 % interval.
        </p>
      )}
    </section>
  );
}

/** Go to the frame a reading came from; for a refused one, take the missing thing in hand. */
function follow(bench: Bench, side: Side, at: Checkpoint, need?: Reading["needs"][number]): void {
  const { sides, goTo, set } = bench.getState();
  const on = sides[side]?.on;
  if (!on) return;
  const pegs = pegsOf(on);
  const frame = pegs[need?.at ?? at];
  set({ active: side, selected: null, tool: null });
  if (frame !== undefined) goTo(side, frame);
  if (need?.kind === "known_length") set({ tool: KNOWN_LENGTH });
  if (need?.kind === "mat") set(on.mat ? { tool: null, selected: MAT } : { tool: MAT });
  if (need?.kind === "plumb") set({ tool: PLUMB });
  if (need?.kind === "mark") set({ tool: need.name });
}
