import { memo } from "react";
import { INK } from "../../drawn/ink";
import type { Look } from "../../drawn/stageView";
import { VIEW_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { OTHER, otherViews, paired, type Side, type SideState } from "../benchState";
import { hint } from "../commands/table";
import { whose } from "../whose";

interface Props {
  side: Side;
  state: SideState;
  look: Look | null;
  setLook: (look: Look | null) => void;
}

/** Whether the camera moved while it filmed, and what was done about it. */
function Steadied({ clip }: { clip: SideState["clip"] }) {
  const stood = clip.proposals.camera;
  if (!stood || stood.how === "still") return null;
  const moved = stood.how === "moved";
  return (
    <span
      className="shrink-0 text-xs opacity-80"
      title={
        moved
          ? `The camera moved by up to ${stood.most_px.toFixed(1)} px. Marks are measured as if it had stood still.`
          : "Too little of the background is seen to tell whether the camera moved."
      }
    >
      {moved ? "hand-held, steadied" : "steadiness unseen"}
    </span>
  );
}

/** Whose swing it is, from which side, and how it is looked at. */
export const StageHeader = memo(function StageHeader({ side, state, look, setLook }: Props) {
  const { clip } = state;
  const set = useBench((bench) => bench.set);
  const turnView = useBench((bench) => bench.turnView);
  const owner = useBench((bench) => whose(bench, side));
  const twin = useBench(paired);
  const both = useBench(({ sides }) => sides.student !== undefined && sides.reference !== undefined);
  return (
    <header className="flex h-8 shrink-0 items-center gap-1.5 px-2 text-sm md:gap-3">
      <span className="h-3 w-3 shrink-0 rounded-full" style={{ background: INK[owner] }} aria-hidden />
      {!twin && (
        <strong className="max-w-40 min-w-10 shrink truncate md:min-w-16" title={state.swing.title}>
          {state.swing.title}
        </strong>
      )}
      {owner === "earlier" && <span className="shrink-0 text-xs opacity-80">earlier</span>}
      <span className="min-w-13 shrink truncate text-xs opacity-80 md:shrink-10">
        {VIEW_WORDS[clip.view]}
        {!state.mirrored && ` · ${state.swing.hand}-handed`}
      </span>
      <Steadied clip={clip} />
      {state.mirrored && <span className="shrink-0 text-xs text-[#D8AA4C]">shown mirrored</span>}
      <span className="ml-auto" />
      {both && !twin && (
        <button
          type="button"
          className="btn btn-ghost btn-xs px-1 md:hidden"
          title={hint("other_stage")}
          onClick={() => set({ active: OTHER[side], tool: null, selected: null })}
        >
          {side === "student" ? "Reference" : "Student"}
        </button>
      )}
      {otherViews(state).map((other) => (
        <button
          key={other.id}
          type="button"
          className="btn btn-ghost btn-xs px-1 md:px-2"
          title={hint("other_view")}
          onClick={() => {
            set({ active: side });
            turnView();
          }}
        >
          {VIEW_WORDS[other.view]}
        </button>
      ))}
      <button
        type="button"
        className="btn btn-ghost btn-xs px-1 md:px-2"
        onClick={() => setLook(look === null ? "whole" : null)}
        title={look === null ? "The whole picture (0)" : "Crop to the player (0)"}
      >
        {look === null ? "Whole" : "Crop"}
      </button>
    </header>
  );
});
