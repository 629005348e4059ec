import { Check, Ruler } from "lucide-react";
import { CHECKPOINT_WORDS, type Checkpoint, MARK_WORDS } from "../words";
import { useBench } from "./benchContext";
import { markAt, pegsOf, ROUND, type Side, type SideState } from "./benchStore";

export const PEG_KEYS: [Checkpoint, string][] = [
  ["address", "A"],
  ["top", "T"],
  ["impact", "I"],
];

/** Pegs and marks of one stage: what is set here, what is still wanted, and the tool in hand. */
export function MarkRail({ side, state }: { side: Side; state: SideState }) {
  const active = useBench((bench) => bench.active === side);
  const tool = useBench((bench) => (bench.active === side ? bench.tool : null));
  const set = useBench((bench) => bench.set);
  const edit = useBench((bench) => bench.edit);
  const goTo = useBench((bench) => bench.goTo);
  const pegs = pegsOf(state.on);
  const addressOnly = pegs.address !== state.frame;
  return (
    <div className="grid gap-1" data-rail={side}>
      <div className="flex gap-1">
        {PEG_KEYS.map(([name, key]) => {
          const here = pegs[name] === state.frame;
          return (
            <span key={name} className="join flex-1">
              <button
                type="button"
                className={`btn btn-xs join-item flex-1 ${here ? "btn-accent" : ""}`}
                onClick={() => edit(side, { kind: "peg", name, frame: here ? null : state.frame })}
                title={here ? "Take the peg away" : `Set the peg on this frame (${key})`}
              >
                {here ? <Check size={12} aria-hidden /> : <kbd className="num opacity-70">{key}</kbd>}
                {CHECKPOINT_WORDS[name]}
                <span className="sr-only">{here ? "peg is here, take it away" : "peg here"}</span>
              </button>
              <button
                type="button"
                className="btn btn-xs join-item num px-1.5"
                disabled={pegs[name] === undefined}
                onClick={() => {
                  set({ active: side });
                  goTo(side, pegs[name] ?? 0);
                }}
                aria-label={`Go to ${CHECKPOINT_WORDS[name]}${pegs[name] === undefined ? ", not pegged" : `, frame ${pegs[name]}`}`}
              >
                {pegs[name] ?? "–"}
              </button>
            </span>
          );
        })}
      </div>
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
          className={`btn btn-xs h-auto min-h-6 justify-start gap-1 px-1.5 font-normal ${tool === "known_length" ? "btn-primary" : ""}`}
          aria-pressed={tool === "known_length"}
          onClick={() => set({ active: side, tool: tool === "known_length" ? null : "known_length" })}
        >
          {state.on.calibration ? <Check size={12} aria-label="set" /> : <Ruler size={12} aria-hidden />}
          Known length
        </button>
      </div>
    </div>
  );
}
