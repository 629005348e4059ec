import { useState } from "react";
import { api, got } from "../api/client";
import type { ClipOut } from "../api/queries";
import { Sheet } from "../parts/Sheet";
import { ClipPicker } from "./ClipPicker";
import { useClipUploads } from "./clipUploads";
import { HandInButton } from "./HandInButton";
import { useHandIn } from "./useHandIn";

interface Props {
  swingId: string;
  title: string;
  clips: ClipOut[];
  refreshes: "swings" | "shelf";
}

/** Taking in one more clip of a swing, filmed from the other side. */
export function AddView(props: Props) {
  const [open, setOpen] = useState(false);
  if (new Set(props.clips.map((clip) => clip.view)).size > 1) return null;
  return (
    <>
      <button type="button" className="btn btn-ghost btn-xs" onClick={() => setOpen(true)}>
        Add a view<span className="sr-only"> of {props.title}</span>
      </button>
      {open && <ViewForm {...props} close={() => setOpen(false)} />}
    </>
  );
}

function ViewForm({ swingId, title, clips, refreshes, close }: Props & { close: () => void }) {
  const uploads = useClipUploads("/api/uploads", clips[0]?.view === "face_on" ? "down_the_line" : "face_on");
  const state = useHandIn(uploads, refreshes, close);
  return (
    <Sheet title={`${title}: one more view`} close={close}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const body = { clips: uploads.clips() };
          state.handIn(() =>
            got(api.POST("/api/swings/{id}/clips", { params: { path: { id: swingId } }, body })),
          );
        }}
      >
        <ClipPicker uploads={uploads} />
        <HandInButton state={state} label="Take in" close={close} />
      </form>
    </Sheet>
  );
}
