import { api, got } from "../api/client";
import { Sheet } from "../parts/Sheet";
import { otherSide } from "../sides";
import type { AddedView } from "./AddView";
import { ClipPicker } from "./ClipPicker";
import { useClipUploads } from "./clipUploads";
import { HandInButton } from "./HandInButton";
import { OneSwing, oneSwingOf } from "./OneSwing";
import { useHandIn } from "./useHandIn";

/** The form that takes one more clip of a swing in. */
export default function ViewForm({
  swingId,
  whom,
  title,
  clips,
  refreshes,
  close,
}: AddedView & { close: () => void }) {
  const uploads = useClipUploads("/api/uploads", whom, otherSide(clips[0]?.view ?? "down_the_line"));
  const state = useHandIn(uploads, refreshes, close);
  return (
    <Sheet title={`${title}: one more view`} close={close}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const body = { one_swing: oneSwingOf(event.currentTarget), clips: uploads.clips() };
          state.handIn(() =>
            got(api.POST("/api/swings/{id}/clips", { params: { path: { id: swingId } }, body })),
          );
        }}
      >
        <ClipPicker uploads={uploads} />
        <OneSwing />
        <HandInButton state={state} label="Take in" close={close} />
      </form>
    </Sheet>
  );
}
