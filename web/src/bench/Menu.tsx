import { type ReactNode, useEffect, useRef, useState } from "react";
import { typing } from "./keys";

interface Props {
  label: string;
  title: string;
  icon: ReactNode;
  opensOn?: string; // key
  below?: boolean; // of its button, where that stands at the top
  count?: number;
  children: ReactNode;
}

/** A button of the bench that unfolds a small plate above or below it; Escape or a click elsewhere folds it. */
export function Menu({ label, title, icon, opensOn, below, count, children }: Props) {
  const [open, setOpen] = useState(false);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return;
      if (event.key.toLowerCase() === opensOn) setOpen((now) => !now);
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [opensOn]);
  useEffect(() => {
    if (!open) return;
    box.current?.querySelector<HTMLElement>("[data-plate] :is(button, a, input)")?.focus();
    const fold = (event: Event) => {
      if (
        event instanceof KeyboardEvent ? event.key === "Escape" : !box.current?.contains(event.target as Node)
      )
        setOpen(false);
    };
    window.addEventListener("keydown", fold);
    window.addEventListener("pointerdown", fold);
    return () => {
      window.removeEventListener("keydown", fold);
      window.removeEventListener("pointerdown", fold);
    };
  }, [open]);
  return (
    <div ref={box} className="relative">
      <button
        type="button"
        className={`btn btn-sm gap-1 px-2 ${open ? "btn-primary" : ""}`}
        aria-expanded={open}
        aria-label={label}
        title={title}
        onClick={() => setOpen(!open)}
      >
        {icon}
        {count ? <span className="num text-xs">{count}</span> : null}
      </button>
      {open && (
        <div
          className={`plate absolute right-0 z-20 p-2 shadow-lg ${below ? "top-full mt-1" : "bottom-full mb-1"}`}
          data-plate
        >
          {children}
        </div>
      )}
    </div>
  );
}
