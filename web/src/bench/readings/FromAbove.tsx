import { useMemo, useState } from "react";
import { HEIGHT, layOut, SIDES, WIDTH } from "../../drawn/floorLayout";
import { keep } from "../../parts/keep";
import { type Unit, type Units, withError } from "../../units";
import { type Checkpoint, SIGNED } from "../../words";
import { useBench } from "../benchContext";
import { rivalOn, type Side, type SideState } from "../benchState";
import { Compass, Plan } from "./FloorPlan";
import type { Reading } from "./reading";

const SHOWN: [reading: string, at: Checkpoint, words: string][] = [
  ["foot_flare_lead", "address", "Lead flare"],
  ["foot_flare_trail", "address", "Trail flare"],
  ["toe_line", "address", "Toe line"],
  ["hip_travel", "impact", "Lead hip behind the line"],
];
const ON_THE_CLOCK: (typeof SHOWN)[number] = ["hip_travel_clock", "impact", "On the clock"];
const CLOCK = "tropometer.hip-travel-on-the-clock";

/** The swing from above: shoes, ball and toe line at address, where the hips went, where the cameras stand. */
export function FromAbove({ units }: { units: Units }) {
  const sides = useBench((bench) => bench.sides);
  const main: Side = sides.student ? "student" : "reference";
  const rival = rivalOn({ sides }, "reference");
  const left = sides[main]?.swing.hand === "left";
  const plans = useMemo(
    () => ({ student: sides.student?.floor, reference: rival?.floor }),
    [sides.student?.floor, rival?.floor],
  );
  const [clock, setClock] = useState(() => localStorage.getItem(CLOCK) === "yes");
  const figures = clock ? [...SHOWN, ON_THE_CLOCK] : SHOWN;
  const layout = useMemo(() => layOut(plans, left), [plans, left]);
  return (
    <section aria-label="Floor plan" className="flex min-h-0 flex-1 justify-center gap-6">
      {layout ? (
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          className="block h-full"
          role="img"
          aria-label="Shoes, ball, hips and cameras seen from above; the ball is up"
        >
          {SIDES.map((side) => {
            const plan = plans[side];
            return (
              plan && (
                <Plan key={side} side={side} state={sides[side]} plan={plan} at={layout.at} units={units} />
              )
            );
          })}
          <Compass left={left} />
        </svg>
      ) : (
        <p className="p-2 text-sm">
          Mark heels and toes at address, and set the mat's corners: then the feet are seen from above.
        </p>
      )}
      {layout && (
        <dl className="grid grid-cols-[1fr_auto] gap-x-2 content-center px-2 py-1 text-sm">
          {figures.map(([id, at, words]) => (
            <Figure key={id} words={words} reading={find(sides[main], id, at)} units={units} />
          ))}
          <label className="col-span-2 mt-1 flex items-center gap-2 text-xs">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={clock}
              onChange={({ target }) => {
                keep(localStorage, CLOCK, target.checked ? "yes" : "no");
                setClock(target.checked);
              }}
            />
            hip travel in hours too
          </label>
        </dl>
      )}
    </section>
  );
}

const find = (state: SideState | undefined, id: string, at: string) =>
  state?.readings.find((each) => each.reading === id && each.at === at);

function Figure({ words, reading, units }: { words: string; reading?: Reading; units: Units }) {
  if (!reading) return null;
  const { value, u95 } = reading;
  const given = value !== null && u95 !== null;
  return (
    <>
      <dt>{words}</dt>
      <dd className="num text-right" title={reading.reason}>
        {given ? withError(value, u95, reading.unit as Unit, units, SIGNED.has(reading.reading)) : "not yet"}
      </dd>
    </>
  );
}
