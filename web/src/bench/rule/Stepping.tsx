import { Toolbar, ToolbarItem } from "@ariakit/react";
import { CHECKPOINTS, PEG_WORDS, type PegName } from "../../words";
import { useBench } from "../benchContext";
import { frameOf, onOf } from "../benchState";
import { clickOnly } from "../clickOnly";
import { hint } from "../commands/table";
import { FrameWheel } from "./FrameWheel";

const SHORT: Record<PegName, string> = { ...PEG_WORDS, ...Object.fromEntries(CHECKPOINTS) };

/** Stepping through the swing: to the pegs on either side, and by frames. */
export function Stepping() {
  return (
    <Toolbar {...clickOnly} className="flex items-center gap-1" aria-label="Frames">
      <PegBeside way={-1} />
      <FrameWheel />
      <PegBeside way={1} />
    </Toolbar>
  );
}

/** The next peg on one side, by its name. */
function PegBeside({ way }: { way: 1 | -1 }) {
  const name = useBench((bench) => {
    const side = bench.sides[bench.active];
    const here = frameOf(bench);
    const beyond = side ? onOf(side).pegs.filter((peg) => (peg.frame - here) * way > 0) : [];
    beyond.sort((a, b) => (a.frame - b.frame) * way);
    return beyond[0]?.name;
  });
  const toPeg = useBench((bench) => bench.toPeg);
  return (
    <ToolbarItem
      className={`btn btn-sm w-23 flex-nowrap gap-1 px-1 font-normal aria-disabled:bg-transparent aria-disabled:opacity-60 ${way < 0 ? "" : "flex-row-reverse"}`}
      disabled={!name}
      accessibleWhenDisabled
      onClick={() => toPeg(way)}
      aria-label={`${way < 0 ? "Peg before" : "Peg after"}: ${name ? SHORT[name] : "no peg"}`}
      title={hint(way < 0 ? "peg_before" : "peg_after", name && `To ${PEG_WORDS[name].toLowerCase()}`)}
    >
      <svg width={8} height={20} viewBox="0 0 8 20" aria-hidden="true" className="shrink-0">
        <path d="M4 4V19" stroke="var(--color-accent)" strokeWidth={3} />
        <circle cx={4} cy={4} r={3.5} fill="currentColor" />
      </svg>
      <span className="min-w-0 truncate">{name ? SHORT[name] : "no peg"}</span>
    </ToolbarItem>
  );
}
