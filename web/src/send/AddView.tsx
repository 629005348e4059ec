import { lazy, Suspense, useState } from "react";
import type { ClipOut } from "../api/queries";

export interface AddedView {
  swingId: string;
  whom: string; // the student's id, or the shelf
  title: string;
  clips: ClipOut[];
  refreshes: "swings" | "shelf";
}

// What sends files is large, and fetched only by who sends one.
const ViewForm = lazy(() => import("./ViewForm"));

/** Taking in one more clip of a swing, filmed from the other side. */
export function AddView(props: AddedView) {
  const [open, setOpen] = useState(false);
  if (new Set(props.clips.map((clip) => clip.view)).size > 1) return null;
  return (
    <>
      <button type="button" className="btn btn-ghost btn-xs" onClick={() => setOpen(true)}>
        Add a view<span className="sr-only"> of {props.title}</span>
      </button>
      {open && (
        <Suspense>
          <ViewForm {...props} close={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
