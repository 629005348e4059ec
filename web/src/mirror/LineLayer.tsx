import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { type Hand, sidesOf } from "../words";
import { type LineName, type Lines, moved } from "./lines";

const NAMES: Record<LineName, string> = {
  trail: "Line at the trail hip",
  lead: "Line at the lead hip",
  plumb: "Plumb at the trail foot",
  seat: "Line behind the seat",
};
const STEP = 0.005;
const KEYS: Record<string, number> = {
  ArrowLeft: -STEP,
  ArrowRight: STEP,
  PageDown: -10 * STEP,
  PageUp: 10 * STEP,
};

interface Props {
  lines: Lines;
  hand: Hand;
  mirrored: boolean;
  change: ((lines: Lines) => void) | null; // null: they stand
}

/** Upright lines over the picture, each dragged or moved by the arrow keys. */
export function LineLayer({ lines, hand, mirrored, change }: Props) {
  const area = useRef<HTMLDivElement>(null);
  const drag = (event: PointerEvent, name: LineName) => {
    const box = area.current?.getBoundingClientRect();
    if (!box || !change || (event.type === "pointermove" && event.buttons === 0)) return;
    if (event.type === "pointerdown") event.currentTarget.setPointerCapture(event.pointerId);
    const share = (event.clientX - box.left) / box.width;
    change(moved(lines, name, mirrored ? 1 - share : share));
  };
  const press = (event: KeyboardEvent, name: LineName, at: number) => {
    const step = KEYS[event.key];
    if (step === undefined || !change) return;
    event.preventDefault();
    change(moved(lines, name, at + (mirrored ? -step : step)));
  };
  return (
    <div ref={area} className="absolute inset-0">
      {(Object.entries(lines) as [LineName, number | null][]).map(([name, at]) => {
        if (at === null) return null;
        const left = `${(mirrored ? 1 - at : at) * 100}%`;
        const line = <span className={name === "plumb" ? DASHED : SOLID} />;
        if (!change)
          return (
            <span key={name} className="absolute inset-y-0 w-0" style={{ left }} aria-hidden>
              {line}
            </span>
          );
        return (
          <span
            key={name}
            role="slider"
            tabIndex={0}
            aria-label={sidesOf(NAMES[name], hand)}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round((mirrored ? 1 - at : at) * 100)}
            aria-orientation="horizontal"
            className="absolute inset-y-0 -ml-6 flex w-12 cursor-ew-resize touch-none justify-center"
            style={{ left }}
            onPointerDown={(event) => drag(event, name)}
            onPointerMove={(event) => drag(event, name)}
            onKeyDown={(event) => press(event, name, at)}
          >
            {line}
            <span
              className="absolute bottom-3 h-8 w-8 rounded-full border-2 border-brass bg-dusk/60"
              aria-hidden
            />
          </span>
        );
      })}
    </div>
  );
}

const SOLID = "block h-full border-l-3 border-brass";
const DASHED = "block h-full border-l-3 border-dashed border-brass";
