import { Check, Flag, X } from "lucide-react";
import { EVENT_WORDS, isCheckpoint, type SwingEvent } from "../../words";
import { useBench } from "../benchContext";
import { pegsOf } from "../benchState";
import { Menu } from "../Menu";

const EVENTS = Object.entries(EVENT_WORDS) as [SwingEvent, string][];

/** The events that are no checkpoints, of the active stage: pegged here, gone to, taken away. */
export function EventList() {
  const side = useBench((bench) => bench.active);
  const state = useBench((bench) => bench.sides[bench.active]);
  const edit = useBench((bench) => bench.edit);
  const goTo = useBench((bench) => bench.goTo);
  if (!state) return null;
  const pegs = pegsOf(state.on);
  const set = state.on.pegs.filter((peg) => !isCheckpoint(peg.name)).length;
  const put = (name: SwingEvent, frame: number | null) =>
    edit(side, { kind: "peg", name, frame, between: false });
  return (
    <Menu
      label={set ? `Events, ${set} set` : "Events"}
      title="What has a time of its own beside the checkpoints (E)"
      opensOn="e"
      count={set}
      icon={<Flag size={16} aria-hidden />}
    >
      <ul className="grid w-72 gap-0.5 text-sm">
        {EVENTS.map(([name, words]) => {
          const frame = pegs[name];
          return (
            <li key={name} className="flex items-center gap-1">
              <button
                type="button"
                className="btn btn-ghost btn-xs flex-1 justify-start font-normal"
                onClick={() => put(name, state.frame)}
                title={`${words}: on this frame`}
              >
                {frame === state.frame ? <Check size={12} aria-label="here" /> : <span className="w-3" />}
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
                    onClick={() => put(name, null)}
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
