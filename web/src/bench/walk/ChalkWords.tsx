import { useEffect, useRef, useState } from "react";
import type { Point } from "../../drawn/stageView";

/** Where words in chalk are typed; Enter puts them on the picture, Escape does not. */
export function ChalkWords({ at, write }: { at: Point; write: (text: string) => void }) {
  const [text, setText] = useState("");
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  return (
    <input
      ref={field}
      className="input input-sm absolute z-10 w-48"
      style={{ left: at.x, top: at.y - 16 }}
      aria-label="Words in chalk"
      maxLength={120}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onPointerDown={(event) => event.stopPropagation()}
      onBlur={() => write(text.trim())}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") write(text.trim());
        if (event.key === "Escape") write("");
      }}
    />
  );
}
