import { Toolbar, ToolbarItem } from "@ariakit/react";
import { Circle, Eraser, MoveUpRight, PenLine, Slash, Spline, Type } from "lucide-react";
import { CHALK_TOOLS, type ChalkTool } from "../../drawn/chalk";
import { useBench } from "../benchContext";
import { chalkIn, chalkTool } from "../benchState";
import { clickOnly } from "../clickOnly";
import { hint } from "../commands/table";

const SHOWN: Record<ChalkTool, [words: string, icon: typeof Circle]> = {
  free: ["Free line", PenLine],
  line: ["Straight line", Slash],
  arrow: ["Arrow", MoveUpRight],
  ring: ["Ring, from its middle", Circle],
  angle: ["Angle: from one end to the corner, then the other end", Spline],
  text: ["Words", Type],
};

/** Chalk for the picture: it stays on the frame on which it was drawn. */
export function ChalkTools() {
  const inHand = useBench((bench) => chalkIn(bench.tool));
  const any = useBench((bench) => bench.chalk.length > 0);
  const set = useBench((bench) => bench.set);
  return (
    <Toolbar {...clickOnly} className="flex items-center gap-1" aria-label="Chalk">
      {CHALK_TOOLS.map((tool) => {
        const [words, Icon] = SHOWN[tool];
        const on = inHand === tool;
        return (
          <ToolbarItem
            key={tool}
            className={`btn btn-sm btn-square ${on ? "btn-primary" : ""}`}
            aria-label={words}
            aria-pressed={on}
            title={hint("chalk", words)}
            onClick={() => set({ tool: on ? null : chalkTool(tool), selected: null })}
          >
            <Icon size={15} aria-hidden />
          </ToolbarItem>
        );
      })}
      <ToolbarItem
        className="btn btn-sm btn-square"
        aria-label="Wipe all chalk away"
        title={hint("wipe")}
        disabled={!any}
        onClick={() => set({ chalk: [] })}
      >
        <Eraser size={15} aria-hidden />
      </ToolbarItem>
    </Toolbar>
  );
}
