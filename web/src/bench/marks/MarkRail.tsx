import { Check, EyeOff, Ruler, Square, Tally1 } from "lucide-react";
import { MARK_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { KNOWN_LENGTH, MAT, markAt, PLUMB, type Side, type SideState } from "../benchState";
import { PegStrip } from "../rule/PegStrip";
import { belongs, GROUP_WORDS, GROUPS, type Group, isHidden, marksOf } from "./round";

/**
 * Pegs and marks of one stage: what is set here, what is still wanted, and the tool in hand. While the swing
 * is looked at as a whole the marks make room.
 */
export function MarkRail({ side, state }: { side: Side; state: SideState }) {
  const active = useBench((bench) => bench.active === side);
  const tool = useBench((bench) => (bench.active === side ? bench.tool : null));
  const wanted = useBench((bench) => bench.wanted);
  const groups = useBench((bench) => bench.groups);
  const group = useBench((bench) => bench.group);
  const set = useBench((bench) => bench.set);
  const folded = useBench((bench) => bench.whole !== null && bench.tool === null);
  const plan = { wanted, groups };
  const here = (of: Group) => marksOf(state, plan, of).filter((mark) => belongs(state, mark));
  if (folded) return <PegStrip side={side} state={state} />;
  return (
    <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-1" data-rail={side}>
      <PegStrip side={side} state={state} />
      <div className="flex flex-wrap items-center gap-1 lg:flex-nowrap">
        <div
          className="flex min-w-0 flex-1 flex-wrap gap-0.5 lg:flex-nowrap"
          role="toolbar"
          aria-label={`Groups of marks, ${side}`}
        >
          {GROUPS.map((each) => (
            <GroupButton
              key={each}
              group={each}
              shown={each === group}
              placed={here(each).filter(({ name }) => markAt(state, name)).length}
              all={here(each).length}
              show={() => set({ active: side, group: each })}
            />
          ))}
        </div>
        <CameraTools side={side} state={state} />
      </div>
      <div className="grid min-h-[50px] grid-cols-4 content-start gap-0.5">
        {marksOf(state, plan, group).map((mark, i) => {
          const { name } = mark;
          const armed = tool === name;
          return (
            <button
              key={name}
              type="button"
              className={`btn btn-xs h-6 min-w-0 flex-nowrap justify-start gap-1 px-1 text-left text-[11px] font-normal ${armed ? "btn-primary" : ""}`}
              aria-pressed={armed}
              title={MARK_WORDS[name]}
              disabled={!belongs(state, mark)}
              onClick={() => set({ active: side, tool: armed ? null : name, selected: null, round: false })}
            >
              {markAt(state, name) ? (
                <Check size={12} className="shrink-0" aria-label="marked" />
              ) : isHidden(state, name) ? (
                <EyeOff size={12} className="shrink-0" aria-label="hidden" />
              ) : (
                <kbd className="num w-3 shrink-0 text-center opacity-70">{active ? i + 1 : "·"}</kbd>
              )}
              <span className="truncate">{short(name)}</span>
            </button>
          );
        })}
      </div>
    </div>
  );
}

const short = (name: string) =>
  MARK_WORDS[name]?.replace(", outer edge", " edge").replace(", inner edge", " inner");

function GroupButton(props: { group: Group; shown: boolean; placed: number; all: number; show: () => void }) {
  const { group, shown, placed, all, show } = props;
  return (
    <button
      type="button"
      className={`btn btn-xs gap-1 px-1.5 font-normal ${shown ? "btn-primary" : ""}`}
      aria-pressed={shown}
      onClick={show}
    >
      {GROUP_WORDS[group]}
      <span className="num text-[10px] opacity-80">
        {placed}/{all}
      </span>
    </button>
  );
}

/** The known length, the plumb line and the mat: each is drawn, or once it is there, chosen. */
function CameraTools({ side, state }: { side: Side; state: SideState }) {
  const { calibration, facts, mat } = state.on;
  return (
    <div className="flex gap-0.5">
      <Tool
        side={side}
        tool={KNOWN_LENGTH}
        there={Boolean(calibration)}
        words="Length"
        title="A known length in the picture (K)"
        icon={<Ruler size={14} aria-hidden />}
      />
      <Tool
        side={side}
        tool={PLUMB}
        there={Boolean(facts?.plumb)}
        words="Plumb"
        title="An upright edge in the picture: how far the camera leans follows from it (U)"
        icon={<Tally1 size={14} aria-hidden />}
      />
      <Tool
        side={side}
        tool={MAT}
        there={Boolean(mat)}
        words="Mat"
        title="The corners of the mat: where the camera stood follows from them (C)"
        icon={<Square size={14} aria-hidden />}
      />
    </div>
  );
}

function Tool(props: {
  side: Side;
  tool: string;
  there: boolean;
  words: string;
  title: string;
  icon: React.ReactNode;
}) {
  const { side, tool, there } = props;
  const drawing = useBench((bench) => bench.active === side && bench.tool === tool);
  const chosen = useBench((bench) => bench.active === side && bench.selected === tool);
  const set = useBench((bench) => bench.set);
  const armed = drawing || chosen;
  return (
    <button
      type="button"
      className={`btn btn-xs btn-square relative ${armed ? "btn-primary" : ""}`}
      aria-pressed={armed}
      aria-label={there ? `${props.words}, set` : props.words}
      title={props.title}
      onClick={() =>
        set({
          active: side,
          round: false,
          tool: armed || there ? null : tool,
          selected: armed || !there ? null : tool,
        })
      }
    >
      {props.icon}
      {there && <Check size={9} className="absolute top-0 right-0" aria-hidden />}
    </button>
  );
}
