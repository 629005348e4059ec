import { Toolbar, ToolbarItem } from "@ariakit/react";
import { useBench } from "../benchContext";
import { rivalOn } from "../benchState";
import { clickOnly } from "../clickOnly";
import { hint } from "../commands/table";
import { StageMenu } from "./StageMenu";

/** How the two stages go together: linked, one over the other, or one alone. */
export function StageTools() {
  const both = useBench((bench) => bench.sides.student !== undefined && bench.sides.reference !== undefined);
  const compared = useBench((bench) => rivalOn(bench, "reference") !== undefined) && both;
  const linked = useBench((bench) => bench.linked);
  const overlay = useBench((bench) => bench.overlay);
  const solo = useBench((bench) => bench.solo);
  const set = useBench((bench) => bench.set);
  const ways = [
    { id: "link", words: "Linked", on: linked, may: both, turn: () => set({ linked: !linked }) },
    { id: "alone", words: "Alone", on: solo, may: true, turn: () => set({ solo: !solo }) },
    {
      id: "overlay",
      words: "Laid over",
      on: overlay > 0,
      may: compared,
      turn: () => set({ overlay: overlay ? 0 : 0.5 }),
    },
  ] as const;
  return (
    <div className="flex items-center gap-1">
      <Toolbar {...clickOnly} className="flex items-center gap-1" aria-label="Stages">
        {ways.map(({ id, words, on, may, turn }) => (
          <ToolbarItem
            key={id}
            className={`btn btn-sm px-2 font-normal ${on ? "btn-primary" : ""}`}
            aria-pressed={on}
            disabled={!may}
            onClick={turn}
            title={hint(id)}
          >
            {words}
          </ToolbarItem>
        ))}
      </Toolbar>
      {overlay > 0 && (
        <input
          type="range"
          className="range range-xs w-14"
          aria-label="How much of the reference is seen"
          min={0.05}
          max={1}
          step={0.05}
          value={overlay}
          onChange={(event) => set({ overlay: Number(event.target.value) })}
        />
      )}
      <StageMenu />
    </div>
  );
}
