import type { Schemas } from "../api/client";
import type { Units } from "../units";
import { CHECKPOINT_WORDS, type Checkpoint } from "../words";
import { useBench } from "./benchContext";
import { OTHER, pegsOf, type Reading, type Side } from "./benchStore";
import { Tape } from "./Tape";

/** The readings of the swing, checkpoint by checkpoint, with the reference's beneath. */
export function Tapes({ units, school }: { units: Units; school?: string }) {
  const sides = useBench((bench) => bench.sides);
  const goTo = useBench((bench) => bench.goTo);
  const set = useBench((bench) => bench.set);
  const main: Side = sides.student ? "student" : "reference";
  const state = sides[main];
  if (!state) return null;
  const other = sides[OTHER[main]];

  const go = (reading: Reading) => {
    set({ active: main, selected: null, tool: null });
    const frame = pegsOf(state.on)[reading.at];
    if (frame !== undefined) goTo(main, frame);
    const need = reading.needs[0];
    if (need) follow(need);
  };
  const follow = (need: Schemas["NeedOut"]) => {
    if (need.kind === "known_length") set({ tool: "known_length" });
    if (need.kind === "mark" && need.at) {
      const frame = pegsOf(state.on)[need.at];
      if (frame !== undefined) goTo(main, frame);
      set({ tool: need.name });
    }
  };
  const groups = [...new Set(state.readings.map((reading) => reading.at))] as Checkpoint[];
  return (
    <section aria-label="Readings" className="plate flex min-h-0 flex-col overflow-y-auto">
      {groups.map((at) => (
        <div key={at}>
          <h2 className="flex items-baseline justify-between bg-pine px-2 py-1 text-sm font-semibold text-paper">
            {CHECKPOINT_WORDS[at]}
            <span className="num text-xs font-normal">
              {pegsOf(state.on)[at] === undefined ? "not pegged" : `frame ${pegsOf(state.on)[at]}`}
            </span>
          </h2>
          {state.readings
            .filter((reading) => reading.at === at)
            .map((reading) => (
              <Tape
                key={reading.reading}
                reading={reading}
                reference={other?.readings.find(
                  (each) => each.reading === reading.reading && each.at === reading.at,
                )}
                units={units}
                go={() => go(reading)}
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
