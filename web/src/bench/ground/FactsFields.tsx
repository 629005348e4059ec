import { LengthField } from "../../parts/LengthField";
import type { Units } from "../../units";
import { useBench } from "../benchContext";
import { onOf, type Side, type SideState } from "../benchState";
import type { Facts } from "../edits";

const NOTHING: Facts = { distance_m: null, height_m: null, squared: false, plumb: null };
const FIELDS = [
  [
    "distance_m",
    "Camera",
    { cm: "4.0", in: "13′" },
    "Distance from the camera to the player along the floor",
    1,
    30,
  ],
  ["height_m", "up", { cm: "1.1", in: "3′ 7″" }, "Height of the camera above the floor", 0.05, 5],
] as const;

/** What somebody knows of the camera: how far, how high, whether it was squared to a stick. */
export function FactsFields({ side, state, units }: { side: Side; state: SideState; units: Units }) {
  const edit = useBench((bench) => bench.edit);
  const facts = onOf(state).facts ?? NOTHING;
  const change = (part: Partial<Facts>) => edit(side, { kind: "facts", value: { ...facts, ...part } });
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1 text-xs whitespace-nowrap">
      {FIELDS.map(([name, words, usual, title, low, high]) => (
        <LengthField
          key={name}
          label={words}
          title={title}
          value={facts[name] ?? null}
          units={units}
          scale="large"
          usual={usual[units]}
          least={low}
          most={high}
          mayBeEmpty
          keep={(value) => change({ [name]: value })}
        />
      ))}
      <label
        className="flex items-center gap-1"
        title="The camera was squared to a stick: ±1.5°, else ±8° by eye"
      >
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={facts.squared ?? false}
          onChange={(event) => change({ squared: event.target.checked })}
        />
        squared
      </label>
    </div>
  );
}
