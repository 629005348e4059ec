import { memo } from "react";
import { useBench } from "../benchContext";
import { OTHER, onOf, openProposals, paired, type Side, type SideState } from "../benchState";

/** Takes all proposed pegs at once; each can be moved or taken back like any other. */
export const ProposedPegs = memo(function ProposedPegs({ side, state }: { side: Side; state: SideState }) {
  const active = useBench((bench) => bench.active === side);
  const set = useBench((bench) => bench.set);
  const acceptPegs = useBench((bench) => bench.acceptPegs);
  const beside = useBench((bench) => {
    const other = active && paired(bench) && bench.lying[OTHER[side]] ? bench.sides[OTHER[side]] : undefined;
    return other ? openProposals(other).length : 0;
  });
  const open = openProposals(state).length + beside;
  const noSwing = state.clip.proposals.is_swing === false && !onOf(state).pegs.length;
  if (!open && !state.clip.looking && noSwing)
    return (
      <p className="rounded-sm bg-dusk/85 px-2 py-0.5 text-xs">
        No golf swing is seen here: peg it yourself, or choose its window.
      </p>
    );
  const { closer } = state.clip;
  if (!open && closer !== null)
    return (
      <p className="rounded-sm bg-dusk/85 px-2 py-0.5 text-xs">
        Looking closer: <span className="num">{closer} %</span>
      </p>
    );
  if (!open && !state.clip.looking) return null;
  if (!open) return <p className="rounded-sm bg-dusk/85 px-2 py-0.5 text-xs">Looking for the player…</p>;
  return (
    <button
      type="button"
      className="btn btn-xs border-dashed border-brass bg-dusk/85 font-normal text-paper"
      onClick={() => {
        set({ active: side });
        acceptPegs();
      }}
    >
      Peg the {open} proposed{beside > 0 && ", both views"}{" "}
      {active && <kbd className="num opacity-80">G</kbd>}
    </button>
  );
});
