import { Layers2, Maximize2, Minimize2, ScanEye } from "lucide-react";
import { Toggle } from "../../parts/Toggle";
import { useBench } from "../benchContext";

/** One stage over the other, or one stage alone. */
export function StageTools() {
  const both = useBench((bench) => bench.sides.student !== undefined && bench.sides.reference !== undefined);
  const overlay = useBench((bench) => bench.overlay);
  const solo = useBench((bench) => bench.solo);
  const alike = useBench((bench) => bench.alike);
  const set = useBench((bench) => bench.set);
  return (
    <div className="flex items-center gap-1" role="toolbar" aria-label="Stages">
      <Toggle
        on={overlay > 0}
        label="Lay the reference over the student"
        title="Lay the reference over the student (B); hold F to see it alone"
        disabled={!both}
        onClick={() => set({ overlay: overlay ? 0 : 0.5 })}
      >
        <Layers2 size={16} aria-hidden />
      </Toggle>
      <input
        type="range"
        className="range range-xs w-14"
        aria-label="How much of the reference is seen"
        min={0}
        max={1}
        step={0.05}
        value={overlay}
        disabled={!both}
        onChange={(event) => set({ overlay: Number(event.target.value) })}
      />
      <Toggle
        on={alike}
        label="Zoom both stages alike"
        title="Zoom and shift both stages alike (Y)"
        disabled={!both}
        onClick={() => set({ alike: !alike })}
      >
        <ScanEye size={16} aria-hidden />
      </Toggle>
      <Toggle
        on={solo}
        label="This stage alone"
        title="This stage alone (M)"
        onClick={() => set({ solo: !solo })}
      >
        {solo ? <Minimize2 size={16} aria-hidden /> : <Maximize2 size={16} aria-hidden />}
      </Toggle>
    </div>
  );
}
