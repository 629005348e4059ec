import { useEffect, useRef } from "react";
import type { Point, Size } from "../../drawn/stageView";
import { MARK_WORDS } from "../../words";

export interface Fan {
  at: Point; // stage px
  names: string[];
}

const STEP_PX = 28;
const WIDE_PX = 150;

/** Which of several marks that lie on each other is meant: their names, fanned out beside them. */
export function MarkFan(props: { fan: Fan; stage: Size; choose: (name: string) => void; close: () => void }) {
  const { fan, stage, choose, close } = props;
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    box.current?.querySelector("button")?.focus();
  }, []);
  const right = fan.at.x + 24 + WIDE_PX < stage.width;
  const tall = fan.names.length * STEP_PX;
  const top = Math.min(Math.max(fan.at.y - tall / 2, 2), Math.max(stage.height - tall - 2, 2));
  return (
    <div
      ref={box}
      role="menu"
      aria-label="Which mark?"
      className="absolute z-10 grid"
      style={right ? { left: fan.at.x + 24, top } : { right: stage.width - fan.at.x + 24, top }}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        const way = { ArrowDown: 1, ArrowUp: -1 }[event.key];
        if (event.key === "Escape") close();
        else if (way) {
          const all = [...(box.current?.querySelectorAll("button") ?? [])];
          const now = all.indexOf(document.activeElement as HTMLButtonElement);
          all[(now + way + all.length) % all.length]?.focus();
        } else return;
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      {fan.names.map((name) => (
        <button
          key={name}
          type="button"
          role="menuitem"
          className="btn btn-xs h-[26px] justify-start border-brass bg-dusk px-2 font-normal text-paper"
          style={{ marginBlock: 1 }}
          onClick={() => choose(name)}
        >
          {MARK_WORDS[name] ?? name}
        </button>
      ))}
    </div>
  );
}
