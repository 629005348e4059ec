import type { Units } from "../../units";
import { withErrorOrNothing } from "../../units";
import { direction, momentWords, READING_WORDS, SAID_WORDS, SIGNED } from "../../words";
import { useBench, useBenchStore } from "../benchContext";
import type { Side } from "../benchState";
import { AddFault } from "../judging/AddFault";
import { pinned } from "../judging/choices";
import { Findings } from "../judging/Findings";
import { LastTime } from "../judging/LastTime";
import { LessonPlan } from "../judging/LessonPlan";
import { OtherModel } from "../judging/OtherModel";
import { useChoices, useChosen, useJudgement } from "../judging/useJudgement";
import { follow, takeNeed } from "../readings/follow";
import type { Reading } from "../readings/reading";
import { Standing, standingWords } from "../readings/Standing";
import { bySetUp, byStanding } from "./standings";

/** What stands out by the student's model and what to keep; then every band, and the set-up. */
export function JudgeStation({ units }: { units: Units }) {
  const bench = useBenchStore();
  const main: Side = useBench((state) => (state.sides.student ? "student" : "reference"));
  const readings = useBench((state) => state.sides[main]?.readings) ?? [];
  const judging = useJudgement(main);
  const { chosen, choose } = useChosen(main, judging.data);
  const { decide, choose: choosePlan } = useChoices(main);
  const banded = byStanding(readings);
  const setUp = bySetUp(readings);
  const untold = readings.filter((each) => each.band !== null && each.status !== "ok");
  return (
    <section aria-label="Judgement" className="plate min-h-0 flex-1 relative overflow-y-auto">
      {judging.data ? (
        <>
          <LastTime judgement={judging.data} units={units} />
          <Findings
            judgement={judging.data}
            chosen={chosen}
            choose={choose}
            take={(need) => takeNeed(bench, main, need)}
            units={units}
            decide={decide}
            pin={(finding) => judging.data && choosePlan(pinned(judging.data, finding))}
          />
          <AddFault judgement={judging.data} decide={decide} />
          {main === "student" && <LessonPlan judgement={judging.data} units={units} choose={choosePlan} />}
          <OtherModel side={main} judgement={judging.data} />
        </>
      ) : (
        <p className="p-2 text-sm" role="status">
          {judging.error ? "The swing could not be judged just now." : "Judging …"}
        </p>
      )}
      <h2 className="bg-pine px-2 py-1 text-sm font-semibold text-paper">Every band</h2>
      {banded.length === 0 && (
        <p className="p-2 text-sm">
          Nothing that this model has a band for can be read yet. Peg and mark the swing first (M).
        </p>
      )}
      {banded.map((reading) => (
        <Row key={`${reading.reading} ${reading.at}`} side={main} reading={reading} units={units} />
      ))}
      {untold.length > 0 && (
        <>
          <h2 className="bg-pine px-2 py-1 text-sm font-semibold text-paper">Cannot be told yet</h2>
          {untold.map((reading) => (
            <Row key={`${reading.reading} ${reading.at}`} side={main} reading={reading} units={units} />
          ))}
        </>
      )}
      <h2 className="bg-pine px-2 py-1 text-sm font-semibold text-paper">Set-up</h2>
      {setUp.map((reading) => (
        <Row key={`${reading.reading} ${reading.at}`} side={main} reading={reading} units={units} />
      ))}
      {setUp.length === 0 && <p className="p-2 text-sm">The set-up is read once address is marked.</p>}
      <p className="px-2 py-1 text-xs">
        Bands and faults are common practice, no source. ± is the 95 % interval; per cent: how sure it is that
        a fault's rule holds.
      </p>
    </section>
  );
}

/** One reading in a line: how it stands, how large it is, and which way to go. */
function Row({ side, reading, units }: { side: Side; reading: Reading; units: Units }) {
  const bench = useBenchStore();
  const looked = useBench(({ focus }) => focus?.reading === reading.reading && focus.at === reading.at);
  const { value, u95 } = reading;
  const given = reading.status === "ok" && value !== null && u95 !== null;
  return (
    <button
      type="button"
      data-prints
      className={`flex w-full items-baseline gap-2 border-b border-base-content/20 border-l-4 px-2 py-1.5 text-left text-sm hover:bg-base-200 ${
        looked ? "border-l-brass bg-base-200" : "border-l-transparent"
      }`}
      data-testid={`judged-${reading.reading}-${reading.at}`}
      title={reading.method}
      onClick={() => follow(bench, side, reading)}
    >
      <span className="w-3 shrink-0 self-center">
        <Standing of={given ? reading.standing : null} />
      </span>
      <span className="min-w-0 flex-1">
        <span className="flex items-baseline justify-between gap-2">
          <span className="min-w-0">
            <span className="font-medium">{READING_WORDS[reading.reading] ?? reading.reading}</span>{" "}
            <span className="opacity-80">{momentWords(reading.at).toLowerCase()}</span>
            {given && reading.provisional && <em className="text-xs"> provisional</em>}
          </span>
          {given && (
            <span className="num shrink-0 font-semibold whitespace-nowrap">
              {reading.said
                ? SAID_WORDS[reading.said]
                : withErrorOrNothing(value, u95, reading.unit, units, SIGNED.has(reading.reading))}
            </span>
          )}
        </span>
        <span className="block text-xs opacity-85">
          {given
            ? reading.standing
              ? standingWords(reading.standing)
              : `${direction(reading.reading, value, reading.sign)}.`
            : reading.reason}
        </span>
      </span>
    </button>
  );
}
