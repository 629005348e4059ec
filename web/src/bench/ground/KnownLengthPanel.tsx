import { LengthField } from "../../parts/LengthField";
import type { Units } from "../../units";
import { useBench } from "../benchContext";
import type { Side, SideState } from "../benchState";
import type { Calibration } from "../edits";
import { FactsFields } from "./FactsFields";
import { LONGEST_M } from "./longest";

const PLACES: [Calibration["place"], string][] = [
  ["toe_line", "along the toes"],
  ["ball_line", "at the ball, on the line"],
  ["body_plane", "at the body"],
];

/** How long the drawn length is and where it lies; what is known of the camera. */
export function KnownLengthPanel(props: { side: Side; state: SideState; known: Calibration; units: Units }) {
  const { side, state, known, units } = props;
  const edit = useBench((bench) => bench.edit);
  const change = (value: Partial<Calibration>) =>
    edit(side, { kind: "calibration", value: { ...known, ...value } });
  return (
    <form
      onSubmit={(event) => event.preventDefault()}
      className="plate flex flex-wrap items-center gap-x-2 gap-y-1 p-1.5 text-xs whitespace-nowrap"
      aria-label={`Known length, ${side}`}
    >
      <LengthField
        label="Known length"
        value={known.length_m}
        units={units}
        {...LONGEST_M}
        keep={(length_m) => length_m !== null && change({ length_m })}
      />
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
      <FactsFields side={side} state={state} units={units} />
    </form>
  );
}
