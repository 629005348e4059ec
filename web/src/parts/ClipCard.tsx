import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, type Schemas } from "../api/client";
import type { ClipOut } from "../api/queries";
import { typed } from "../units";
import { VIEW_WORDS } from "../words";
import { ClipState } from "./ClipState";
import { Field } from "./Field";
import { Sheet } from "./Sheet";
import { Trouble } from "./Trouble";

/** What a clip is, and a way to say it anew: its view, its capture rate, filmed in a mirror or not. */
export function ClipCard({ clip, refreshes }: { clip: ClipOut; refreshes: "swings" | "shelf" }) {
  const [open, setOpen] = useState(false);
  return (
    <span className="inline-flex items-center gap-1">
      <ClipState clip={clip} refreshes={refreshes} />
      {clip.state === "ready" && !clip.drawn && (
        <button type="button" className="btn btn-ghost btn-xs" onClick={() => setOpen(true)}>
          Change<span className="sr-only"> {VIEW_WORDS[clip.view].toLowerCase()} clip</span>
        </button>
      )}
      {open && <ClipForm clip={clip} refreshes={refreshes} close={() => setOpen(false)} />}
    </span>
  );
}

function ClipForm(props: { clip: ClipOut; refreshes: string; close: () => void }) {
  const { clip, refreshes, close } = props;
  const queries = useQueryClient();
  const change = useMutation({
    mutationFn: (body: Schemas["ClipChange"]) =>
      got(api.PUT("/api/clips/{id}/about", { params: { path: { id: clip.id } }, body })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: [refreshes] });
      await queries.invalidateQueries({ queryKey: ["swing"] });
      close();
    },
  });
  return (
    <Sheet title={clip.original_name} close={close}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const data = new FormData(event.currentTarget);
          change.mutate({
            view: data.get("view") as ClipOut["view"],
            capture_fps: typed(String(data.get("capture_fps"))) || null,
            flipped: data.get("flipped") !== null,
          });
        }}
      >
        <Field label="View">
          <select className="select w-full" name="view" defaultValue={clip.view}>
            {Object.entries(VIEW_WORDS).map(([view, words]) => (
              <option key={view} value={view}>
                {words}
              </option>
            ))}
          </select>
        </Field>
        <Field
          label="Slow motion, shot at (frames a second)"
          hint={
            clip.capture_from === "file" && clip.capture_fps
              ? "The file itself says so. Empty when it plays at real speed."
              : "Empty when it plays at real speed."
          }
        >
          <input
            className="input num w-full"
            name="capture_fps"
            inputMode="decimal"
            pattern="[0-9]+([.,][0-9]+)?"
            title="A number, such as 240 or 156,5"
            defaultValue={clip.capture_fps ?? ""}
          />
        </Field>
        <label className="mb-3 flex items-start gap-2 text-sm">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            name="flipped"
            defaultChecked={clip.flipped}
          />
          <span>
            Filmed in a mirror, as selfie cameras do: turn it round. Marks turn with it; it is made ready
            again.
          </span>
        </label>
        {change.error && <Trouble error={change.error} />}
        <button type="submit" className="btn btn-primary w-full" disabled={change.isPending}>
          Save
        </button>
      </form>
    </Sheet>
  );
}
