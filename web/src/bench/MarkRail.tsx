import { Check, Ruler, Square } from "lucide-react";
import { MARK_WORDS } from "../words";
import { useBench } from "./benchContext";
import { KNOWN_LENGTH, MAT, markAt, pegsOf, ROUND, type Side, type SideState } from "./benchStore";
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
        <div className="flex min-h-13 items-center gap-2 text-sm">
          <p className="flex-1">Nothing is measured from this side yet.</p>
          <MatButton side={side} state={state} />
        </div>
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
        <div className="flex gap-1">
          <button
            type="button"
            className={`btn btn-xs h-auto min-h-6 flex-1 justify-start gap-1 px-1.5 font-normal ${tool === KNOWN_LENGTH ? "btn-primary" : ""}`}
            aria-pressed={tool === KNOWN_LENGTH}
            title="A known length in the picture (K)"
            onClick={() =>
              set({ active: side, tool: tool === KNOWN_LENGTH ? null : KNOWN_LENGTH, selected: null })
            }
          >
            {state.on.calibration ? <Check size={12} aria-label="set" /> : <Ruler size={12} aria-hidden />}
            Length
          </button>
          <MatButton side={side} state={state} />
        </div>
      </div>
    </div>
  );
}

/** Takes the mat in hand: its corners are clicked, or once they are set, it is chosen. */
function MatButton({ side, state }: { side: Side; state: SideState }) {
  const armed = useBench((bench) => bench.active === side && (bench.tool === MAT || bench.selected === MAT));
  const set = useBench((bench) => bench.set);
  return (
    <button
      type="button"
      className={`btn btn-xs h-auto min-h-6 flex-1 justify-start gap-1 px-1.5 font-normal ${armed ? "btn-primary" : ""}`}
      aria-pressed={armed}
      title="The corners of the mat: where the camera stood follows from them (C)"
      onClick={() =>
        set({
          active: side,
          tool: armed || state.on.mat ? null : MAT,
          selected: armed || !state.on.mat ? null : MAT,
        })
      }
    >
      {state.on.mat ? <Check size={12} aria-label="set" /> : <Square size={12} aria-hidden />}
      Mat
    </button>
  );
}
