import { useState } from "react";
import type { ClipOut } from "../api/queries";
import { ClipFields } from "./ClipFields";
import { Sheet } from "./Sheet";
import { TakeIn } from "./TakeIn";
import { useUpload } from "./useUpload";

interface Props {
  swingId: string;
  title: string;
  clips: ClipOut[];
  refreshes: "swings" | "shelf";
}

/** Taking in one more clip of a swing, filmed from the other side. */
export function AddView(props: Props) {
  const [open, setOpen] = useState(false);
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
  const { submit, share, error } = useUpload(`/api/swings/${swingId}/clips`, refreshes, close);
  return (
    <Sheet title={`${title}: one more view`} close={close}>
      <form onSubmit={submit}>
        <ClipFields view={clips[0]?.view === "face_on" ? "down_the_line" : "face_on"} />
        <TakeIn share={share} error={error} />
      </form>
    </Sheet>
  );
}
