import type { Units } from "../../units";
import { type Checkpoint, PEG_WORDS } from "../../words";
import { useBench } from "../benchContext";
import type { Side } from "../benchState";
import { Curves } from "../whole/Curves";
import { CurveTable } from "../whole/CurveTable";
import { useCourse } from "../whole/useCourse";
import { Footprints } from "./Footprints";
import { FELT, SHARE } from "./felt";
import { PlaceBars } from "./PlaceBars";
import { PlateFile } from "./PlateFile";

/** What a pressure plate felt: under the shoes, over the swing, and at the checkpoints. */
export function PressureView({ side, units, tabled }: { side: Side; units: Units; tabled: boolean }) {
  const felt = useBench((bench) => bench.sides[side]?.pressure ?? null);
  return (
    <>
      <PlateFile side={side} />
      {felt && (
        <section aria-label="Under the feet" className="flex min-h-0 flex-1 gap-3 px-1 pb-1">
          {!tabled && <Footprints side={side} />}
          <div className="flex min-w-44 flex-1 flex-col">
            {tabled ? (
              <CurveTable reading={SHARE} units={units} asked={FELT} />
            ) : (
              <Curves reading={SHARE} units={units} asked={FELT} otherwise />
            )}
            <Otherwise side={side} />
          </div>
          <PlaceBars side={side} units={units} tabled={tabled} />
        </section>
      )}
    </>
  );
}

/** What the outlined bands are. */
function Otherwise({ side }: { side: Side }) {
  const others = useCourse(side, FELT).found?.course.others.filter(({ reading }) => reading === SHARE);
  if (!others?.length) return null;
  const said = others.map(({ teaching, at, low, high }) => {
    const ends = [low, high].map((end) => (end === null ? "" : Math.round(100 * end))).join("–");
    return `${teaching} (${PEG_WORDS[at as Checkpoint].toLowerCase()}: ${ends} %)`;
  });
  return (
    <p className="line-clamp-2 text-[0.7rem] leading-tight" title={said.join("; ")}>
      Outlined, taught otherwise: {said.join("; ")}
    </p>
  );
}
