import { Check, X } from "lucide-react";
import { EVENT_WORDS, isCheckpoint, type SwingEvent } from "../../words";
import { useBench, useBenchStore } from "../benchContext";
import { onOf, pegsOf, type Side } from "../benchState";
import { Menu } from "../Menu";
import { putPeg } from "./putPeg";

const EVENTS = Object.entries(EVENT_WORDS) as [SwingEvent, string][];

/** The events that are no checkpoints, of the active stage: pegged here, gone to, taken away. */
export function EventList() {
  const side = useBench((bench) => bench.active);
  const state = useBench((bench) => bench.sides[bench.active]);
  const bench = useBenchStore();
  const goTo = useBench((bench) => bench.goTo);
  if (!state) return null;
  const pegs = pegsOf(onOf(state));
  const set = onOf(state).pegs.filter((peg) => !isCheckpoint(peg.name)).length;
  return (
    <Menu
      command="events"
      words={set ? `Events ${set}` : "Events"}
      label={set ? `Events, ${set} set` : "Events"}
    >
      <ul className="grid w-72 gap-0.5 text-sm">
        {EVENTS.map(([name, words]) => {
          const frame = pegs[name];
          return (
            <li key={name} className="flex items-center gap-1">
              <button
                type="button"
                className="btn btn-ghost btn-xs flex-1 justify-start font-normal"
                onClick={() => putPeg(bench, name, undefined, side)}
                title={`${words}: on this frame`}
              >
                <Here side={side} frame={frame} />
                {words}
              </button>
              {frame !== undefined && (
                <>
                  <button
                    type="button"
                    className="btn btn-ghost btn-xs num"
                    onClick={() => goTo(side, frame)}
                    aria-label={`Go to ${words.toLowerCase()}, frame ${frame}`}
                  >
                    {frame}
                  </button>
                  <button
                    type="button"
                    className="btn btn-ghost btn-xs btn-square"
                    onClick={() => putPeg(bench, name, null, side)}
                    aria-label={`Take ${words.toLowerCase()} away`}
                  >
                    <X size={12} aria-hidden />
                  </button>
                </>
              )}
            </li>
          );
        })}
      </ul>
    </Menu>
  );
}

function Here({ side, frame }: { side: Side; frame?: number }) {
  const here = useBench((bench) => bench.stands[side].frame === frame);
  return here ? <Check size={12} aria-label="here" /> : <span className="w-3" />;
}
