import { Toolbar, ToolbarItem } from "@ariakit/react";
import { Check, EyeOff } from "lucide-react";
import { MARK_WORDS } from "../../words";
import { useBench } from "../benchContext";
import {
  type BenchState,
  KNOWN_LENGTH,
  MAT,
  markAt,
  onOf,
  PLUMB,
  type Side,
  type SideState,
} from "../benchState";
import { clickOnly } from "../clickOnly";
import { type CommandId, hint } from "../commands/table";
import { belongs, GROUP_WORDS, GROUPS, type Group, isHidden, marksOf, type Wanted } from "./round";

/** The marks of a stage, group by group: what is set on this frame, and what can be taken in hand. */
export function MarkBoard({ side, state }: { side: Side; state: SideState }) {
  const wanted = useBench((bench) => bench.wanted);
  const groups = useBench((bench) => bench.groups);
  const group = useBench((bench) => bench.group);
  return (
    <section className="plate grid gap-1 p-1.5" aria-label={`Marks, ${side}`}>
      <Toolbar {...clickOnly} className="flex gap-0.5" aria-label={`Groups of marks, ${side}`}>
        {GROUPS.map((each) => (
          <GroupButton key={each} side={side} group={each} />
        ))}
      </Toolbar>
      <Toolbar
        {...clickOnly}
        className="grid min-h-[106px] grid-cols-2 content-start gap-0.5"
        aria-label={`Marks of the ${GROUP_WORDS[group].toLowerCase()}`}
      >
        {marksOf(state, { wanted, groups }, group).map((mark, i) => (
          <MarkButton key={mark.name} side={side} mark={mark} number={i + 1} />
        ))}
      </Toolbar>
      <GroundTools state={state} />
    </section>
  );
}

type Status = "marked" | "hidden" | "open" | "elsewhere";

/** How a mark is on the frame that is shown. */
function statusOf({ sides, stands }: BenchState, side: Side, mark: Wanted): Status {
  const state = sides[side];
  const { frame } = stands[side];
  if (!state || !belongs(state, mark, frame)) return "elsewhere";
  if (markAt(state, mark.name, frame)) return "marked";
  return isHidden(state, mark.name, frame) ? "hidden" : "open";
}

/** A mark that is there is chosen, one that is not is taken in hand. */
function MarkButton({ side, mark, number }: { side: Side; mark: Wanted; number: number }) {
  const status = useBench((bench) => statusOf(bench, side, mark));
  const armed = useBench((bench) => bench.tool === mark.name);
  const chosen = useBench((bench) => bench.selected === mark.name);
  const set = useBench((bench) => bench.set);
  const press = () => {
    if (status !== "marked") {
      set({ tool: armed ? null : mark.name, selected: null, round: false });
      return;
    }
    set({ selected: chosen ? null : mark.name, tool: null, round: false });
    // From here the arrows move it.
    document.querySelector<HTMLElement>(`[data-side=${side}] [role=application]`)?.focus();
  };
  return (
    <ToolbarItem
      className={`btn btn-xs h-6 min-w-0 flex-nowrap justify-start gap-1 px-1 text-left font-normal ${
        armed ? "btn-primary" : chosen ? "border-brass bg-brass/25" : ""
      }`}
      aria-pressed={armed || chosen}
      disabled={status === "elsewhere"}
      onClick={press}
    >
      {status === "marked" ? (
        <Check size={12} className="shrink-0" aria-label="marked" />
      ) : status === "hidden" ? (
        <EyeOff size={12} className="shrink-0" aria-label="hidden" />
      ) : (
        <kbd className="num w-3 shrink-0 text-center opacity-75">{number}</kbd>
      )}
      <span className="truncate">{MARK_WORDS[mark.name]}</span>
    </ToolbarItem>
  );
}

function GroupButton({ side, group }: { side: Side; group: Group }) {
  const shown = useBench((bench) => bench.group === group);
  const set = useBench((bench) => bench.set);
  const placed = useBench((bench) => {
    const state = bench.sides[side];
    const all = state ? marksOf(state, bench, group).map((mark) => statusOf(bench, side, mark)) : [];
    const here = all.filter((status) => status !== "elsewhere");
    return `${here.filter((status) => status === "marked").length}/${here.length}`;
  });
  return (
    <ToolbarItem
      className={`btn btn-xs h-8 min-w-0 flex-1 flex-col gap-0 px-0.5 leading-none font-normal ${shown ? "btn-primary" : ""}`}
      aria-pressed={shown}
      onClick={() => set({ group })}
    >
      {GROUP_WORDS[group]}
      <span className="num text-[10px] opacity-80">{placed}</span>
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
      className="flex items-center gap-0.5 border-t border-base-content/20 pt-1"
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
