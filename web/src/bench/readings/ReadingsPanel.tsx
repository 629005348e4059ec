import { useQuery } from "@tanstack/react-query";
import { useCallback, useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { earlierQuery } from "../../api/queries";
import type { Units } from "../../units";
import { CHECKPOINT_WORDS, GROUP_TITLES, momentWords, PART_WORDS, READING_WORDS } from "../../words";
import { useBench, useBenchStore } from "../benchContext";
import { OTHER, rivalOn, type Side } from "../benchState";
import { useCourse } from "../whole/useCourse";
import { follow } from "./follow";
import { NextClick } from "./NextClick";
import type { Reading } from "./reading";
import { Tape } from "./Tape";
import type { Past } from "./TapeDetail";
import { useFirstLook, withFirstLook } from "./useFirstLook";

const FILTERS = {
  matters: "What matters now",
  all: "All",
  set_up: "Set-up",
  back: "Going back",
  down: "Coming down",
  through: "Through",
} as const;
type Filter = keyof typeof FILTERS;

const STRETCHES: Record<string, Filter> = {
  address: "set_up",
  shaft_back: "back",
  arm_back: "back",
  top: "back",
  swing: "back",
  extreme_back: "back",
  arm_down: "down",
  shaft_down: "down",
  impact: "down",
  shaft_through: "through",
  finish: "through",
};
const ORDER = [...Object.keys(CHECKPOINT_WORDS), ...Object.keys(PART_WORDS)];
const inOrder = (a: Reading, b: Reading) => ORDER.indexOf(a.at) - ORDER.indexOf(b.at);
const GROUPS = Object.keys(GROUP_TITLES) as Reading["group"][];

function passes(reading: Reading, filter: Filter): boolean {
  if (reading.reading === "hip_travel_clock") return false; // the same in hours: a second label, from above
  if (filter === "all") return true;
  if (filter === "matters") return reading.band !== null || reading.reading === "going_back";
  return (STRETCHES[reading.at] ?? "down") === filter;
}

/** The readings of the swing from the floor up, with the reference's beneath, and what those not given need. */
export function ReadingsPanel({ units, model }: { units: Units; model?: string }) {
  const bench = useBenchStore();
  const main: Side = useBench((state) => (state.sides.student ? "student" : "reference"));
  const pegged = useBench((state) => state.sides[main]?.readings);
  const first = useFirstLook(main);
  const timed = useTimed(main, pegged);
  const readings = useMemo(() => timed && withFirstLook(timed, first), [timed, first]);
  const others = useBench((state) => rivalOn(state, OTHER[main])?.readings);
  const focus = useBench((state) => state.focus);
  const swingId = useBench((state) => state.sides.student?.swing.id ?? "");
  const earlier = useQuery(earlierQuery(swingId)).data;
  const past = useMemo(() => pastOf(earlier ?? []), [earlier]);
  const [filter, setFilter] = useState<Filter>("matters");
  const go = useCallback((reading: Reading) => follow(bench, main, reading), [bench, main]);
  if (!readings) return null;
  const passing = readings.filter((reading) => passes(reading, filter));
  // Where everything is asked for, what is missing is said once for all readings that miss it.
  const inline = filter === "matters" ? passing : passing.filter((reading) => reading.status === "ok");
  const refused = passing.filter((reading) => !inline.includes(reading));
  return (
    <section aria-label="Readings" className="plate flex min-h-0 flex-1 flex-col relative overflow-y-auto">
      <NextClick side={main} />
      {first !== null && first.readings.length > 0 && (
        <p className="border-b border-base-content/20 px-2 py-1 text-xs">
          <em>Provisional</em> is what the machine reads where nobody has looked yet. None of it goes into a
          lesson.
        </p>
      )}
      <label className="flex items-center gap-2 border-b border-base-content/20 px-2 py-1 text-xs">
        Readings
        <select
          className="select select-xs flex-1"
          value={filter}
          onChange={(event) => setFilter(event.target.value as Filter)}
        >
          {Object.entries(FILTERS).map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <div className="md:max-lg:columns-2 md:max-lg:gap-px">
        {GROUPS.map((group) => {
          const rows = inline.filter((reading) => reading.group === group).sort(inOrder);
          if (!rows.length) return null;
          return (
            <div key={group}>
              <h2 className="bg-pine px-2 py-1 text-sm font-semibold text-paper">{GROUP_TITLES[group]}</h2>
              {rows.map((reading) => (
                <Tape
                  key={`${reading.reading} ${reading.at}`}
                  reading={reading}
                  reference={others?.find(
                    (each) => each.reading === reading.reading && each.at === reading.at,
                  )}
                  past={past.get(`${reading.reading} ${reading.at}`)}
                  open={focus?.reading === reading.reading && focus.at === reading.at}
                  units={units}
                  go={go}
                />
              ))}
            </div>
          );
        })}
      </div>
      {!inline.length && !refused.length && <p className="p-2 text-sm">No reading belongs here.</p>}
      {refused.length > 0 && <NotYet readings={refused} take={go} />}
      {model && (
        <p className="mt-auto border-t border-base-content/20 px-2 py-1 text-xs">
          <span className="mr-1 inline-block h-2.5 w-4 bg-brass/50 align-middle" aria-hidden />
          Band: {model}. Common practice, no source. ± is the 95 % interval.
        </p>
      )}
    </section>
  );
}

// Times that curves can tell where nobody pegged them.
const TIMED = ["start_times", "heel_return_lead", "heel_off_trail", "lead_knee_straight_time", "post_time"];
const isTimed = ({ reading }: Reading) => TIMED.includes(reading);

/** The readings, where times that nobody pegged are read off the curves if these have them. */
function useTimed(side: Side, readings?: Reading[]): Reading[] | undefined {
  const open = readings?.some((reading) => isTimed(reading) && reading.status === "refused") ?? false;
  const times = useCourse(side, [], open).found?.times;
  return useMemo(
    () =>
      readings?.map((reading) =>
        reading.status === "refused"
          ? (times?.find((each) => each.reading === reading.reading && each.at === reading.at) ?? reading)
          : reading,
      ),
    [readings, times],
  );
}

/** By reading and moment, the latest swing first. */
function pastOf(earlier: Schemas["EarlierOut"][]): Map<string, Past[]> {
  const found = new Map<string, Past[]>();
  for (const swing of earlier)
    for (const { reading, at, value, u95 } of swing.readings) {
      const key = `${reading} ${at}`;
      found.set(key, [...(found.get(key) ?? []), { on: swing.received_at, value, u95 }]);
    }
  return found;
}

/** Refused readings by what they say they lack; a click takes that in hand. */
function NotYet({ readings, take }: { readings: Reading[]; take: (reading: Reading) => void }) {
  const reasons = new Map<string, Reading[]>();
  for (const reading of readings)
    reasons.set(reading.reason, [...(reasons.get(reading.reason) ?? []), reading]);
  return (
    <div>
      <h2 className="bg-pine px-2 py-1 text-sm font-semibold text-paper">Not yet</h2>
      {[...reasons].map(([reason, lacking]) => (
        <button
          key={reason}
          type="button"
          data-prints
          className="block w-full border-b border-base-content/20 px-2 py-1 text-left text-xs last:border-0 hover:bg-base-200"
          onClick={() => lacking[0] && take(lacking[0])}
        >
          {reason}
          <span className="block opacity-75">{lackingWords(lacking)}</span>
        </button>
      ))}
    </div>
  );
}

function lackingWords(readings: Reading[]): string {
  const words = readings.map(
    (each) => `${READING_WORDS[each.reading] ?? each.reading}, ${momentWords(each.at).toLowerCase()}`,
  );
  return words.length > 3 ? `${words.slice(0, 2).join("; ")} and ${words.length - 2} more` : words.join("; ");
}
