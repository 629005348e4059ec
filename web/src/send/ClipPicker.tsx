import { RotateCcw, X } from "lucide-react";
import { useId } from "react";
import { Field } from "../parts/Field";
import { VIEW_WORDS, type View } from "../words";
import type { Arriving, ClipUploads } from "./clipUploads";
import { useGivenFiles } from "./useGivenFiles";

const MB = 1024 * 1024;
const HINT =
  "mp4, mov or webm; up to 60 s and 500 MB each. Both views of a swing together, if you have them. Drop or paste works too.";

/** Choosing clips, and what is said of each while it is on its way. */
export function ClipPicker({ uploads, hint = HINT }: { uploads: ClipUploads; hint?: string }) {
  const rates = useId();
  const hanging = useGivenFiles(uploads.add);
  return (
    <div className={hanging ? "rounded-sm outline-2 outline-offset-4 outline-brass outline-dashed" : ""}>
      <Field label="Clips" hint={hanging ? "Let go: it is added." : hint}>
        <input
          className="file-input w-full"
          type="file"
          multiple
          accept="video/*,.mp4,.mov,.webm"
          onChange={(event) => {
            uploads.add(event.target.files ?? []);
            event.target.value = "";
          }}
        />
      </Field>
      {uploads.refused.map((line) => (
        <p key={line} role="alert" className="mb-2 border-l-4 border-brass pl-2 text-sm">
          {line}
        </p>
      ))}
      <ul className="mb-3 grid gap-2" aria-label="Chosen clips">
        {uploads.files.map((file) => (
          <ClipRow key={file.id} file={file} uploads={uploads} rates={rates} />
        ))}
      </ul>
      <datalist id={rates}>
        <option value="60" />
        <option value="120" />
        <option value="240" />
      </datalist>
    </div>
  );
}

function ClipRow({ file, uploads, rates }: { file: Arriving; uploads: ClipUploads; rates: string }) {
  return (
    <li className="plate p-2 text-sm">
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1 truncate font-medium" title={file.name}>
          {file.name}
        </span>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square"
          aria-label={`Take ${file.name} out`}
          onClick={() => uploads.remove(file.id)}
        >
          <X size={14} aria-hidden />
        </button>
      </div>
      <p className="my-1 flex items-center gap-2">
        <progress
          className="progress progress-accent"
          value={file.share}
          max={1}
          aria-label={`Sending ${file.name}`}
        />
        <span className="num text-xs whitespace-nowrap">
          {file.arrived
            ? `${(file.bytes / MB).toFixed(1)} MB, here`
            : `${Math.floor(file.share * 100)} % of ${(file.bytes / MB).toFixed(1)} MB`}
        </span>
      </p>
      {file.stopped && (
        <p role="alert" className="mb-1 flex items-center gap-2">
          {file.stopped}
          <button type="button" className="btn btn-xs" onClick={uploads.retry}>
            <RotateCcw size={12} aria-hidden /> Go on
          </button>
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <label className="flex items-center gap-1">
          View
          <select
            className="select select-sm w-36"
            value={file.view}
            onChange={(event) => uploads.tell(file.id, { view: event.target.value as View })}
          >
            {Object.entries(VIEW_WORDS).map(([view, words]) => (
              <option key={view} value={view}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <label
          className="flex items-center gap-1"
          title="Only for slow motion: the rate it was shot at. Empty when it plays at real speed."
        >
          Slow motion, shot at
          <input
            className="input input-sm num w-20"
            inputMode="decimal"
            pattern="[0-9]+([.,][0-9]+)?"
            title="A number, such as 240 or 156,5"
            placeholder="–"
            list={rates}
            value={file.capture}
            onChange={(event) => uploads.tell(file.id, { capture: event.target.value })}
          />
          /s
        </label>
        <label
          className="flex items-center gap-1"
          title="Selfie cameras film as a mirror: it is turned round."
        >
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={file.mirrored}
            onChange={(event) => uploads.tell(file.id, { mirrored: event.target.checked })}
          />
          Mirrored
        </label>
      </div>
    </li>
  );
}
