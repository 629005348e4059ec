import { useQuery } from "@tanstack/react-query";
import { memo, useMemo } from "react";
import { proposedMarksQuery } from "../../api/queries";
import { MARK_WORDS } from "../../words";
import { useBench } from "../benchContext";
import type { Side, SideState } from "../benchState";
import { useDoing } from "../commands/doings";
import type { Point } from "../stage/stageView";
import { GROUPS, openAt, roundOf } from "./round";
import { corners } from "./surveyMark";

export type ProposedMark = {
  name: string;
  frame: number;
  x: number;
  y: number;
  sd_px: number;
  shared_px: number;
};

/** The wanted marks of a frame that a worker proposes and nobody has placed. */
export function useProposedMarks(state: SideState, frame: number, marking: boolean): ProposedMark[] {
  const all = useBench((bench) => bench.wanted);
  const chosen = useBench((bench) => bench.groups);
  const led = useBench((bench) => bench.led);
  const groups = led ? GROUPS : chosen; // what is worth looking at is not only of the chosen ones
  const round = useMemo(() => roundOf(state, { wanted: all, groups }), [state, all, groups]);
  const wanted = marking ? openAt(round, frame) : [];
  const asks = wanted.length > 0 && !state.clip.looking;
  const found = useQuery({ ...proposedMarksQuery(state.clip, frame), enabled: asks });
  const open = asks ? found.data?.filter((mark) => wanted.includes(mark.name)) : undefined;
  return open?.length ? open : NONE;
}

const NONE: ProposedMark[] = []; // the same each time, so that nothing is drawn anew for it

/** Proposed marks as they lie in the picture: four corners about each, as far off as its error reaches. */
export const ProposedMarkLayer = memo(function ProposedMarkLayer(props: {
  marks: ProposedMark[];
  place: (point: Point) => Point;
  scale: number;
  ink: string;
}) {
  return (
    <g className="pointer-events-none" fill="none">
      {props.marks.map((mark) => {
        const { x, y } = props.place(mark);
        const shape = corners(Math.max(mark.sd_px * props.scale, 6));
        return (
          <g key={mark.name} data-proposed={mark.name} transform={`translate(${x} ${y})`}>
            <path d={shape} stroke="#10201D" strokeWidth={3} strokeOpacity={0.6} />
            <path d={shape} stroke={props.ink} strokeWidth={1.25} />
            <circle r={1} fill={props.ink} />
          </g>
        );
      })}
    </g>
  );
});

/** Takes proposed marks: the one whose tool is in hand, else all; Enter does the same, Shift Enter takes all. */
export function TakeProposed({ side, marks }: { side: Side; marks: ProposedMark[] }) {
  const active = useBench((bench) => bench.active === side);
  const tool = useBench((bench) => (bench.active === side ? bench.tool : null));
  const edit = useBench((bench) => bench.edit);
  const set = useBench((bench) => bench.set);
  const advance = useBench((bench) => bench.advance);
  const round = useBench((bench) => bench.active === side && bench.round);
  const inHand = marks.filter((mark) => mark.name === tool);
  const meant = tool && inHand.length ? inHand : marks;
  const take = (taken: ProposedMark[]) => {
    set({ active: side });
    // They lie on the stage and were looked at; their places are still a machine's.
    for (const { name, frame, x, y, sd_px, shared_px } of taken)
      edit(side, { kind: "mark", name, frame, place: { x, y, sd_px, shared_px, source: "accepted" } });
    if (tool || round) advance();
  };
  const any = active && meant.length > 0;
  useDoing("accept", () => take(meant), any);
  useDoing("accept_all", () => take(marks), any);
  const first = meant[0];
  if (!first) return null;
  return (
    <div className="grid justify-items-start gap-1">
      <button type="button" className={TAKE} onClick={() => take(meant)}>
        Take {meant.length === 1 && !tool ? `the ${MARK_WORDS[first.name]?.toLowerCase()} ` : ""}
        {meant.length > 1 && `${meant.length} marks `}
        as proposed
        {active && <kbd className="num opacity-80">Enter</kbd>}
      </button>
      {meant.length < marks.length && (
        <button type="button" className={TAKE} onClick={() => take(marks)}>
          all {marks.length}
          {active && <kbd className="num opacity-80">Shift Enter</kbd>}
        </button>
      )}
    </div>
  );
}

const TAKE = "btn btn-xs border-dashed border-brass bg-dusk/85 font-normal text-paper";
