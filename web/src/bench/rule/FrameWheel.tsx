import { type PointerEvent, useRef } from "react";
import { useBench } from "../benchContext";
import { frameOf } from "../benchState";
import { hint } from "../commands/table";

const WIDTH = 132;
const HEIGHT = 32;
const RIBS = 24; // round the whole wheel
const FRAME_TURN = Math.PI / 18; // how far a frame turns it
const FRAME_PX = 6; // of a drag
const STILL_PX = 3;

/** A ribbed wheel under the thumb: a press on either half turns it a frame, a drag as many as it is long. */
export function FrameWheel() {
  const frame = useBench(frameOf);
  const active = useBench((bench) => bench.active);
  const goTo = useBench((bench) => bench.goTo);
  const step = useBench((bench) => bench.step);
  const set = useBench((bench) => bench.set);
  const drag = useRef<{ x: number; frame: number; turned: boolean } | null>(null);
  const down = (event: PointerEvent) => {
    drag.current = { x: event.clientX, frame, turned: false };
  };
  const move = (event: PointerEvent) => {
    const now = drag.current;
    if (!now || !(event.buttons & 1)) return;
    const far = event.clientX - now.x;
    if (!now.turned && Math.abs(far) > STILL_PX) {
      now.turned = true;
      set({ playing: null });
      event.currentTarget.setPointerCapture(event.pointerId);
    }
    if (now.turned) goTo(active, now.frame + Math.round(far / FRAME_PX));
  };
  const press = (way: 1 | -1) => (event: React.MouseEvent) => {
    if (drag.current?.turned) return; // a drag ends in a click as well
    step(way * (event.shiftKey ? 10 : 1));
  };
  const half = "absolute inset-y-0 w-1/2 cursor-ew-resize";
  return (
    <div
      className="relative shrink-0 touch-none overflow-hidden rounded-sm select-none border border-base-content/40"
      style={{ width: WIDTH, height: HEIGHT }}
      onPointerDown={down}
      onPointerMove={move}
    >
      <svg width={WIDTH} height={HEIGHT} aria-hidden="true" className="block bg-base-200">
        {ribsAt(frame).map(({ x, shade }, i) => (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: a rib is its place among those that are seen
            key={i}
            d={`M${x} 3V${HEIGHT - 3}`}
            stroke="currentColor"
            strokeOpacity={shade}
            strokeWidth={2}
          />
        ))}
        <path d={`M${WIDTH / 2} ${HEIGHT}l-4 -6h8z`} fill="var(--color-accent)" />
      </svg>
      <button
        type="button"
        className={`${half} left-0`}
        aria-label="One frame back"
        title={`${hint("step_back")}; drag to turn, with Shift ten`}
        onClick={press(-1)}
      />
      <button
        type="button"
        className={`${half} right-0`}
        aria-label="One frame on"
        title={`${hint("step_on")}; drag to turn, with Shift ten`}
        onClick={press(1)}
      />
    </div>
  );
}

/** The ribs on the near half of the wheel, as they look from before it. */
function ribsAt(frame: number): { x: number; shade: number }[] {
  const rib = (2 * Math.PI) / RIBS;
  const turned = (((frame * FRAME_TURN) % rib) + rib) % rib;
  return Array.from({ length: RIBS / 2 }, (_, i) => {
    const angle = i * rib + turned - Math.PI / 2;
    return { x: (WIDTH / 2) * (1 + Math.sin(angle)), shade: 0.15 + 0.6 * Math.cos(angle) };
  });
}
