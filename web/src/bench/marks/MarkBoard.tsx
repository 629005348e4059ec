import { Toolbar, ToolbarItem } from "@ariakit/react";
import { Check, EyeOff } from "lucide-react";
import { MARK_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { KNOWN_LENGTH, MAT, markAt, onOf, PLUMB, type Side, type SideState } from "../benchState";
import { clickOnly } from "../clickOnly";
import { type CommandId, hint } from "../commands/table";
import { belongs, GROUP_WORDS, GROUPS, type Group, isHidden, marksOf } from "./round";

/** The marks of a stage, group by group: what is set on this frame, and what can be taken in hand. */
export function MarkBoard({ side, state }: { side: Side; state: SideState }) {
  const tool = useBench((bench) => bench.tool);
  const selected = useBench((bench) => bench.selected);
  const wanted = useBench((bench) => bench.wanted);
  const groups = useBench((bench) => bench.groups);
  const group = useBench((bench) => bench.group);
  const set = useBench((bench) => bench.set);
  const plan = { wanted, groups };
  const here = (of: Group) => marksOf(state, plan, of).filter((mark) => belongs(state, mark));
  return (
    <section className="plate grid gap-1 p-1.5" aria-label={`Marks, ${side}`}>
      <Toolbar {...clickOnly} className="flex gap-0.5" aria-label={`Groups of marks, ${side}`}>
        {GROUPS.map((each) => (
          <GroupButton
            key={each}
            group={each}
            shown={each === group}
            placed={here(each).filter(({ name }) => markAt(state, name)).length}
            all={here(each).length}
            show={() => set({ group: each })}
          />
        ))}
      </Toolbar>
      <Toolbar
        {...clickOnly}
        className="grid min-h-[106px] grid-cols-2 content-start gap-0.5"
        aria-label={`Marks of the ${GROUP_WORDS[group].toLowerCase()}`}
      >
        {marksOf(state, plan, group).map((mark, i) => {
          const { name } = mark;
          const armed = tool === name;
          const there = markAt(state, name) !== undefined;
          return (
            <ToolbarItem
              key={name}
              className={`btn btn-xs h-6 min-w-0 flex-nowrap justify-start gap-1 px-1 text-left font-normal ${
                armed ? "btn-primary" : selected === name ? "border-brass bg-brass/25" : ""
              }`}
              aria-pressed={armed}
              disabled={!belongs(state, mark)}
              onClick={() => set({ tool: armed ? null : name, selected: null, round: false })}
            >
              {there ? (
                <Check size={12} className="shrink-0" aria-label="marked" />
              ) : isHidden(state, name) ? (
                <EyeOff size={12} className="shrink-0" aria-label="hidden" />
              ) : (
                <kbd className="num w-3 shrink-0 text-center opacity-75">{i + 1}</kbd>
              )}
              <span className="truncate">{MARK_WORDS[name]}</span>
            </ToolbarItem>
          );
        })}
      </Toolbar>
      <GroundTools state={state} />
    </section>
  );
}

function GroupButton(props: { group: Group; shown: boolean; placed: number; all: number; show: () => void }) {
  const { group, shown, placed, all, show } = props;
  return (
    <ToolbarItem
      className={`btn btn-xs h-8 min-w-0 flex-1 flex-col gap-0 px-0.5 leading-none font-normal ${shown ? "btn-primary" : ""}`}
      aria-pressed={shown}
      onClick={show}
    >
      {GROUP_WORDS[group]}
      <span className="num text-[10px] opacity-80">
        {placed}/{all}
      </span>
    </ToolbarItem>
  );
}

const GROUND: { tool: string; id: CommandId; words: string }[] = [
  { tool: MAT, id: "mat", words: "Mat" },
  { tool: KNOWN_LENGTH, id: "known_length", words: "Length" },
  { tool: PLUMB, id: "plumb", words: "Upright edge" },
];

/** What the picture is measured by: each is drawn, or once it is there, chosen. */
function GroundTools({ state }: { state: SideState }) {
  const tool = useBench((bench) => bench.tool);
  const selected = useBench((bench) => bench.selected);
  const set = useBench((bench) => bench.set);
  const { calibration, facts, mat } = onOf(state);
  const there: Record<string, boolean> = {
    [MAT]: mat !== null,
    [KNOWN_LENGTH]: calibration !== null,
    [PLUMB]: Boolean(facts?.plumb),
  };
  return (
    <Toolbar
      {...clickOnly}
      className="flex items-center gap-0.5 border-t border-pine/20 pt-1"
      aria-label="What the picture is measured by"
    >
      {GROUND.map((each) => {
        const set_ = there[each.tool] ?? false;
        const armed = tool === each.tool || selected === each.tool;
        return (
          <ToolbarItem
            key={each.tool}
            className={`btn btn-xs flex-1 flex-nowrap gap-1 px-1 font-normal ${armed ? "btn-primary" : ""}`}
            aria-pressed={armed}
            aria-label={set_ ? `${each.words}, set` : each.words}
            title={hint(each.id)}
            onClick={() =>
              set({
                round: false,
                tool: armed || set_ ? null : each.tool,
                selected: armed || !set_ ? null : each.tool,
              })
            }
          >
            {set_ && <Check size={12} aria-hidden />}
            {each.words}
          </ToolbarItem>
        );
      })}
    </Toolbar>
  );
}
