import { Undo2 } from "lucide-react";
import { forget, useUndoable } from "./undo";

/** Says what was just done, with its undo, or what could not be done. */
export function UndoNote() {
  const last = useUndoable((state) => state.last);
  if (!last) return null;
  return (
    <p
      role={last.undo ? "status" : "alert"}
      className="fixed bottom-4 left-1/2 z-40 flex -translate-x-1/2 items-center gap-3 rounded bg-pine px-4 py-2 text-sm text-paper shadow-lg"
    >
      {last.text}
      <button
        type="button"
        className="btn btn-xs"
        onClick={() => {
          last.undo?.();
          forget();
        }}
      >
        {last.undo && <Undo2 size={12} aria-hidden />} {last.undo ? "Undo" : "All right"}
      </button>
    </p>
  );
}
