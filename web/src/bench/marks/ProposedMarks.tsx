import { useQuery } from "@tanstack/react-query";
import { memo, useEffect, useMemo } from "react";
import { proposedMarksQuery } from "../../api/queries";
import type { Point } from "../../drawn/stageView";
import { MARK_WORDS } from "../../words";
import { useBench, useBenchStore } from "../benchContext";
import { OTHER, onOf, paired, type Side, type SideState } from "../benchState";
import { useDoing } from "../commands/doings";
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
export function useProposedMarks(
  state: SideState,
  frame: number,
  marking: boolean,
  following: boolean, // marks are being carried from where a hand put them
): ProposedMark[] {
  const all = useBench((bench) => bench.wanted);
  const chosen = useBench((bench) => bench.groups);
  const led = useBench((bench) => bench.led);
  const groups = led ? GROUPS : chosen; // what is worth looking at is not only of the chosen ones
  const round = useMemo(() => roundOf(state, { wanted: all, groups }), [state, all, groups]);
  const wanted = marking ? openAt(round, frame) : [];
  const asks = wanted.length > 0 && !state.clip.looking;
  const found = useQuery({
    ...proposedMarksQuery(state.clip, frame, `${onOf(state).version} ${following}`),
    enabled: asks,
  });
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
  const bench = useBenchStore();
  const active = useBench((state) => state.active === side);
  const tool = useBench((bench) => (bench.active === side ? bench.tool : null));
  const edit = useBench((bench) => bench.edit);
  const set = useBench((bench) => bench.set);
  const advance = useBench((bench) => bench.advance);
  const round = useBench((bench) => bench.active === side && bench.round);
  // Where the swing's other view lies beside, its marks are seen as well: all of both are taken at once.
  const beyond = useBench((bench) => (active && paired(bench) && bench.lying[OTHER[side]]) || NONE);
  useEffect(() => {
    set({ lying: { ...bench.getState().lying, [side]: marks } });
    return () => set({ lying: { ...bench.getState().lying, [side]: undefined } });
  }, [bench, set, side, marks]);
  const inHand = marks.filter((mark) => mark.name === tool);
  const meant = tool && inHand.length ? inHand : marks;
  const all = marks.length + beyond.length;
  const take = (taken: ProposedMark[], besides: ProposedMark[] = NONE) => {
    set({ active: side });
    const together = crypto.randomUUID();
    const places = { [side]: taken, [OTHER[side]]: besides } as Record<Side, ProposedMark[]>;
    // They lie on the stage and were looked at; their places are still a machine's.
    for (const at of [side, OTHER[side]])
      for (const { name, frame, x, y, sd_px, shared_px } of places[at]) {
        const place = { x, y, sd_px, shared_px, source: "accepted" as const };
        edit(at, { kind: "mark", name, frame, place }, undefined, together);
      }
    if (tool || round) advance();
  };
  const takeMeant = () => take(meant, tool ? NONE : beyond);
  const any = active && meant.length + beyond.length > 0;
  useDoing("accept", takeMeant, any);
  useDoing("accept_all", () => take(marks, beyond), any);
  const first = meant[0] ?? beyond[0];
  if (!first) return null;
  const count = meant.length + (tool ? 0 : beyond.length);
  return (
    <div className="grid justify-items-start gap-1">
      <button type="button" className={TAKE} onClick={takeMeant}>
        Take {count === 1 && !tool ? `the ${MARK_WORDS[first.name]?.toLowerCase()} ` : ""}
        {count > 1 && `${count} marks `}
        as proposed
        {count > meant.length && (meant.length > 0 ? ", both views" : ", the other view")}
        {active && <kbd className="num opacity-80">Enter</kbd>}
      </button>
      {count < all && (
        <button type="button" className={TAKE} onClick={() => take(marks, beyond)}>
          all {all}
          {active && <kbd className="num opacity-80">Shift Enter</kbd>}
        </button>
      )}
    </div>
  );
}

const TAKE = "btn btn-xs border-dashed border-brass bg-dusk/85 font-normal text-paper";
