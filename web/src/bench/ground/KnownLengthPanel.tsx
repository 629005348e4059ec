import { keep } from "../../parts/keep";
import { LengthField } from "../../parts/LengthField";
import { shown, type Units } from "../../units";
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

const LAST_SAID = "tropometer.known-length";
const STICK_M = 1.22; // 48 inches

/** How long the drawn length is and where it lies; what is known of the camera. */
export function KnownLengthPanel(props: { side: Side; state: SideState; known: Calibration; units: Units }) {
  const { side, state, known, units } = props;
  const edit = useBench((bench) => bench.edit);
  const change = (value: Partial<Calibration>) =>
    edit(side, { kind: "calibration", value: { ...known, ...value } });
  const say = (length_m: number) => {
    change({ length_m });
    keep(localStorage, LAST_SAID, String(length_m));
  };
  return (
    <form
      onSubmit={(event) => event.preventDefault()}
      className="plate flex flex-wrap items-center gap-x-2 gap-y-1 p-1.5 text-xs whitespace-nowrap"
      aria-label={`Known length, ${side}`}
    >
      {known.length_m === null && <LengthAsked state={state} units={units} take={say} />}
      <LengthField
        label="Known length"
        value={known.length_m}
        units={units}
        {...LONGEST_M}
        keep={(length_m) => length_m !== null && say(length_m)}
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

/** Asks how long it is: nothing is measured by it before somebody has said so. */
function LengthAsked(props: { state: SideState; units: Units; take: (length_m: number) => void }) {
  const { state, units, take } = props;
  const others = Object.values(state.views).flatMap((view) => view.calibration?.length_m ?? []);
  const last = Number(localStorage.getItem(LAST_SAID));
  const offers: [number, string][] = [
    ...others.map((length): [number, string] => [length, "as from the other side"]),
    ...(last > 0 ? [[last, "as the last time"] as [number, string]] : []),
    [STICK_M, "a range stick"],
  ];
  const once = offers.filter(([length], i) => offers.findIndex(([other]) => other === length) === i);
  return (
    <div className="grid w-full justify-items-start gap-1 border-l-4 border-brass pl-2">
      <p className="text-sm font-medium">How long is what you drew?</p>
      {once.map(([length, said]) => (
        <button key={length} type="button" className="btn btn-xs" onClick={() => take(length)}>
          <span className="num">
            {shown(length, "m", units).toFixed(1)} {units}
          </span>
          <span className="font-normal">{said}</span>
        </button>
      ))}
    </div>
  );
}
