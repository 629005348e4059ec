import { EyeOff, SkipForward } from "lucide-react";
import { isCheckpoint, MARK_WORDS, PEG_WORDS, VIEW_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { onOf, otherViews, type Side, type SideState } from "../benchState";
import { GROUP_WORDS, GROUPS, type Group, roundOf } from "./round";

/** The round through all wanted marks of a clip: how far it is, what comes next, and what is wanted at all. */
export function RoundPanel({ side, state }: { side: Side; state: SideState }) {
  const round = useBench((bench) => bench.round);
  const tool = useBench((bench) => bench.tool);
  const wanted = useBench((bench) => bench.wanted);
  const groups = useBench((bench) => bench.groups);
  const skipped = useBench((bench) => bench.skipped.length);
  const set = useBench((bench) => bench.set);
  const start = useBench((bench) => bench.startRound);
  const skip = useBench((bench) => bench.skip);
  const hide = useBench((bench) => bench.hide);
  const turn = useBench((bench) => bench.turnView);
  const plan = { wanted, groups };
  const places = roundOf(state, plan);
  const open = places.filter((place) => !place.done).length;
  const other = otherViews(state)[0];
  const at = useBench(
    ({ stands }) =>
      onOf(state).pegs.find((peg) => peg.frame === stands[side].frame && isCheckpoint(peg.name))?.name,
  );
  const toggle = (group: Group) =>
    set({ groups: groups.includes(group) ? groups.filter((each) => each !== group) : [...groups, group] });
  return (
    <section aria-label={`Round, ${side}`} className="plate grid gap-1 p-1.5 text-xs">
      <div className="flex items-center gap-2">
        <h2 className="text-sm font-semibold">Round</h2>
        <progress
          className="progress h-2 flex-1"
          value={places.length - open}
          max={Math.max(places.length, 1)}
          aria-label="Marks placed"
        />
        <span className="num" data-testid="round-left">
          {open ? `${open} left` : places.length ? "all placed" : "no pegs yet"}
        </span>
        {round ? (
          <button type="button" className="btn btn-xs" onClick={() => set({ round: false, tool: null })}>
            End
          </button>
        ) : (
          <button type="button" className="btn btn-xs btn-primary" disabled={!open} onClick={start}>
            Go <kbd className="num opacity-80">N</kbd>
          </button>
        )}
      </div>
      {round && tool && (
        <div className="grid grid-cols-[1fr_1fr] gap-1">
          <p className="col-span-2 truncate" role="status">
            {at && PEG_WORDS[at]}: <b>{MARK_WORDS[tool]}</b>
          </p>
          <button type="button" className="btn btn-xs" onClick={skip} title="Leave it for later (N)">
            <SkipForward size={12} aria-hidden /> Skip <kbd className="num opacity-70">N</kbd>
          </button>
          <button type="button" className="btn btn-xs" onClick={hide} title="It cannot be seen here (H)">
            <EyeOff size={12} aria-hidden /> Hidden <kbd className="num opacity-70">H</kbd>
          </button>
        </div>
      )}
      {!round && (
        <div className="flex flex-wrap gap-x-2">
          {GROUPS.map((group) => (
            <label key={group} className="flex items-center gap-1">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={groups.includes(group)}
                onChange={() => toggle(group)}
              />
              {GROUP_WORDS[group]}
            </label>
          ))}
        </div>
      )}
      {!round && skipped > 0 && open > 0 && <p>{skipped} skipped; the round comes back to that.</p>}
      {!open && places.length > 0 && other && (
        <button type="button" className="btn btn-xs justify-self-start" onClick={turn}>
          Go on {VIEW_WORDS[other.view].toLowerCase()} <kbd className="num opacity-70">V</kbd>
        </button>
      )}
    </section>
  );
}
