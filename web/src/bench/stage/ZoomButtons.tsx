import { ZoomIn, ZoomOut } from "lucide-react";
import { memo } from "react";
import { ZOOM_STEP } from "./useStageView";

/** Larger and smaller, for whoever has neither wheel nor two fingers free. */
export const ZoomButtons = memo(function ZoomButtons({ zoom }: { zoom: (factor: number) => void }) {
  const shape = "btn btn-xs btn-square border-0 bg-dusk/70 text-paper";
  return (
    <div className="absolute right-1 bottom-1 grid gap-1" onPointerDown={(event) => event.stopPropagation()}>
      <button
        type="button"
        className={shape}
        aria-label="Larger"
        title="Larger (W)"
        onClick={() => zoom(ZOOM_STEP)}
      >
        <ZoomIn size={14} aria-hidden />
      </button>
      <button
        type="button"
        className={shape}
        aria-label="Smaller"
        title="Smaller (Q)"
        onClick={() => zoom(1 / ZOOM_STEP)}
      >
        <ZoomOut size={14} aria-hidden />
      </button>
    </div>
  );
});
