import { Check, Ruler } from "lucide-react";
import { MARK_WORDS } from "../words";
import { useBench } from "./benchContext";
import { KNOWN_LENGTH, markAt, pegsOf, ROUND, type Side, type SideState } from "./benchStore";
import { PegStrip } from "./PegStrip";

/** Pegs and marks of one stage: what is set here, what is still wanted, and the tool in hand. */
export function MarkRail({ side, state }: { side: Side; state: SideState }) {
  const active = useBench((bench) => bench.active === side);
  const tool = useBench((bench) => (bench.active === side ? bench.tool : null));
  const set = useBench((bench) => bench.set);
  const pegs = pegsOf(state.on);
  const addressOnly = pegs.address !== state.frame;
  return (
    <div className="grid gap-1" data-rail={side}>
      <PegStrip side={side} state={state} />
      {state.clip.view !== "face_on" && (
        <p className="grid min-h-13 place-items-center text-sm">
          Nothing is measured from this side yet; step, peg and pick frames.
        </p>
      )}
      <div className={state.clip.view === "face_on" ? "grid grid-cols-3 gap-1" : "hidden"}>
        {ROUND.map((name, i) => {
          const placed = markAt(state, name) !== undefined;
          const armed = tool === name;
          return (
            <button
              key={name}
              type="button"
              className={`btn btn-xs h-auto min-h-6 justify-start gap-1 px-1.5 py-0.5 text-left font-normal ${armed ? "btn-primary" : ""}`}
              aria-pressed={armed}
              disabled={name === "trail_foot_outer" && addressOnly}
              onClick={() => set({ active: side, tool: armed ? null : name, selected: null })}
            >
              {placed ? (
                <Check size={12} aria-label="marked" />
              ) : (
                <kbd className="num w-3 text-center opacity-70">{active ? i + 1 : "·"}</kbd>
              )}
              {MARK_WORDS[name]}
            </button>
          );
        })}
        <button
          type="button"
          className={`btn btn-xs h-auto min-h-6 justify-start gap-1 px-1.5 font-normal ${tool === KNOWN_LENGTH ? "btn-primary" : ""}`}
          aria-pressed={tool === KNOWN_LENGTH}
          onClick={() =>
            set({ active: side, tool: tool === KNOWN_LENGTH ? null : KNOWN_LENGTH, selected: null })
          }
        >
          {state.on.calibration ? <Check size={12} aria-label="set" /> : <Ruler size={12} aria-hidden />}
          Known length
        </button>
      </div>
    </div>
  );
}
