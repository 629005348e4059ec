import {
  ChevronFirst,
  ChevronLast,
  ChevronLeft,
  ChevronRight,
  ChevronsLeft,
  ChevronsRight,
  Link2,
  Link2Off,
  Redo2,
  Undo2,
} from "lucide-react";
import { useBench } from "../benchContext";
import { Player } from "../stage/Player";

/** Stepping, jumping, linking, undoing: the buttons beside the keys. */
export function Transport() {
  const step = useBench((bench) => bench.step);
  const toPeg = useBench((bench) => bench.toPeg);
  const linked = useBench((bench) => bench.linked);
  const set = useBench((bench) => bench.set);
  const undo = useBench((bench) => bench.undo);
  const redo = useBench((bench) => bench.redo);
  const canUndo = useBench((bench) => bench.done.length > 0);
  const canRedo = useBench((bench) => bench.undone.length > 0);
  const both = useBench((bench) => bench.sides.student !== undefined && bench.sides.reference !== undefined);
  const square = "btn btn-sm btn-square";
  const moves = [
    { label: "Peg before", key: "[", Icon: ChevronFirst, go: () => toPeg(-1) },
    { label: "Ten frames back", key: "Shift ←", Icon: ChevronsLeft, go: () => step(-10) },
    { label: "One frame back", key: "←", Icon: ChevronLeft, go: () => step(-1) },
    { label: "One frame on", key: "→", Icon: ChevronRight, go: () => step(1) },
    { label: "Ten frames on", key: "Shift →", Icon: ChevronsRight, go: () => step(10) },
    { label: "Peg after", key: "]", Icon: ChevronLast, go: () => toPeg(1) },
  ];
  return (
    <div className="flex flex-wrap items-center gap-1" role="toolbar" aria-label="Frames">
      {moves.map(({ label, key, Icon, go }) => (
        <button
          key={label}
          type="button"
          className={square}
          onClick={go}
          aria-label={label}
          title={`${label} (${key})`}
        >
          <Icon size={18} aria-hidden />
        </button>
      ))}
      <Player />
      <button
        type="button"
        className={`btn btn-sm ml-2 ${linked ? "btn-primary" : ""}`}
        aria-pressed={linked}
        disabled={!both}
        onClick={() => set({ linked: !linked })}
        title="Both stages move together, peg to peg (L)"
      >
        {linked ? <Link2 size={16} aria-hidden /> : <Link2Off size={16} aria-hidden />}
        {linked ? "Linked" : "Each alone"}
      </button>
      <button
        type="button"
        className={`${square} ml-2`}
        onClick={undo}
        disabled={!canUndo}
        aria-label="Undo"
        title="Ctrl Z"
      >
        <Undo2 size={16} aria-hidden />
      </button>
      <button
        type="button"
        className={square}
        onClick={redo}
        disabled={!canRedo}
        aria-label="Redo"
        title="Ctrl Y"
      >
        <Redo2 size={16} aria-hidden />
      </button>
    </div>
  );
}
