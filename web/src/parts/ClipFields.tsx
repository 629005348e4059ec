import { useId } from "react";
import type { ClipOut } from "../api/queries";
import { Field } from "./Field";

/** The file itself, its view and its capture rate; names match the API's form. */
export function ClipFields({ view = "face_on" }: { view?: ClipOut["view"] }) {
  const rates = useId();
  return (
    <>
      <Field label="Clip" hint="mp4, mov or webm; up to 60 s and 500 MB. Portrait or landscape.">
        <input
          className="file-input w-full"
          type="file"
          name="file"
          accept="video/mp4,video/quicktime,video/webm,.mp4,.mov,.webm"
          required
        />
      </Field>
      <Field label="View">
        <select className="select w-full" name="view" defaultValue={view}>
          <option value="face_on">Face-on</option>
          <option value="down_the_line">Down the line</option>
        </select>
      </Field>
      <Field
        label="Capture rate, frames a second"
        hint="Only for slow motion: the rate it was shot at, such as 120 or 240. Leave empty when the clip plays at real speed."
      >
        <input
          className="input num w-full"
          name="capture_fps"
          type="number"
          min={1}
          max={2000}
          step="any"
          list={rates}
        />
      </Field>
      <datalist id={rates}>
        <option value="60" />
        <option value="120" />
        <option value="240" />
      </datalist>
    </>
  );
}

/** The form's data without fields left empty, which the API reads as not given. */
export function filled(form: HTMLFormElement): FormData {
  const data = new FormData(form);
  for (const [name, value] of [...data]) if (value === "") data.delete(name);
  return data;
}
