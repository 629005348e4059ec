import type { FormEvent } from "react";
import type { Units } from "../../units";
import { useBench } from "../benchContext";
import type { Side, SideState } from "../benchState";
import type { Calibration } from "../edits";
import { FactsFields } from "./FactsFields";
import { useLengthText } from "./useLengthText";

const PLACES: [Calibration["place"], string][] = [
  ["toe_line", "along the toes"],
  ["ball_line", "at the ball, on the line"],
  ["body_plane", "at the body"],
];

/** How long the drawn length is and where it lies; what is known of the camera. */
export function KnownLengthPanel(props: { side: Side; state: SideState; known: Calibration; units: Units }) {
  const { side, state, known, units } = props;
  const edit = useBench((bench) => bench.edit);
  const length = useLengthText(known.length_m, units);
  const change = (value: Partial<Calibration>) =>
    edit(side, { kind: "calibration", value: { ...known, ...value } });
  const keepLength = () => {
    const length_m = length.read();
    if (length_m === null) length.write();
    else if (length_m !== known.length_m) change({ length_m });
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    keepLength();
  };
  return (
    <form
      onSubmit={submit}
      className="plate flex flex-wrap items-center gap-x-2 gap-y-1 p-1.5 text-xs whitespace-nowrap"
      aria-label={`Known length, ${side}`}
    >
      <label className="flex items-center gap-1">
        Known length
        <input
          className="input input-xs num w-16"
          inputMode="decimal"
          value={length.text}
          onChange={(event) => length.setText(event.target.value)}
          onBlur={keepLength}
        />
        {units}
      </label>
      <label className="flex items-center gap-1">
        <span className="sr-only">lies</span>
        <select
          className="select select-xs w-30"
          title="At the ball, along the target line, it also squares the mat"
          value={known.place}
          onChange={(event) => change({ place: event.target.value as Calibration["place"] })}
        >
          {PLACES.map(([place, words]) => (
            <option key={place} value={place}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <FactsFields side={side} state={state} />
      <button type="submit" className="sr-only">
        Keep
      </button>
    </form>
  );
}
