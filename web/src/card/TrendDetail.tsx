import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { changeQuery } from "../api/queries";
import { changeWords, countWords, settlesWords } from "../drawn/changeWords";
import { BenchLink } from "../parts/BenchLink";
import { Sheet } from "../parts/Sheet";
import { Trouble } from "../parts/Trouble";
import { day } from "../parts/when";
import { number, signBehind, type Unit, type Units, withError, withSign } from "../units";
import { momentWords, READING_WORDS, SIGNED } from "../words";
import { type GoalOnTime, TrendChart } from "./TrendChart";
import type { Span, Timed, Trend, Trends } from "./trend";

const LARGE = { width: 400, height: 220 };

interface Props {
  id: string;
  trend: Trend;
  trends: Trends;
  times: Timed[];
  practised: number[];
  goal: GoalOnTime | undefined;
  span: Span;
  units: Units;
  close: () => void;
}

/** One reading over time: whether it changed and how sure that is, and every swing as a row. */
export function TrendDetail({ id, trend, trends, times, practised, goal, span, units, close }: Props) {
  const name = `${READING_WORDS[trend.reading] ?? trend.reading} ${momentWords(trend.at).toLowerCase()}`;
  const signed = SIGNED.has(trend.reading);
  const rows = trend.swing.map((place, number) => ({
    swing: trends.swings[place],
    value: trend.value[number] ?? 0,
    u95: trend.u95[number] ?? 0,
    provisional: trend.provisional[number],
  }));
  return (
    <Sheet title={name} close={close}>
      <TrendChart
        trend={trend}
        swings={times}
        lessons={trends.lessons}
        practised={practised}
        goal={goal}
        span={span}
        units={units}
        {...LARGE}
      />
      <p className="text-xs opacity-85">
        A dot is a swing, its line the error of measuring, a bar the mean of a day. Brass is the band
        {goal ? ", between broken lines the goal" : ""}; a flag is a lesson, a short stroke a day on which a
        drill was done. Broken and hollow: nobody has looked at it.
      </p>
      <Changed id={id} trend={trend} trends={trends} units={units} />
      <table className="mt-3 w-full text-sm">
        <caption className="sr-only">{name}, swing by swing, the latest first</caption>
        <thead>
          <tr className="text-left">
            <th scope="col">Swing</th>
            <th scope="col" className="text-right">
              Read
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.reverse().map(
            ({ swing, value, u95, provisional }) =>
              swing && (
                <tr key={swing.id} className="border-t border-base-content/20">
                  <td className="py-1">
                    {swing.filmed ? (
                      <BenchLink className="underline" id={swing.id}>
                        {day(swing.received_at)}
                      </BenchLink>
                    ) : (
                      day(swing.received_at)
                    )}{" "}
                    {swing.club}
                    {!swing.filmed && <span className="block text-xs">measured before; no clip is kept</span>}
                  </td>
                  <td className="num py-1 text-right">
                    {withError(value, u95, trend.unit, units, signed)}
                    {provisional && <span className="block text-xs">not looked at</span>}
                  </td>
                </tr>
              ),
          )}
        </tbody>
      </table>
    </Sheet>
  );
}

function Changed({ id, trend, trends, units }: Pick<Props, "id" | "trend" | "trends" | "units">) {
  const [first, setFirst] = useState(false);
  const { club_class, swing_length } = trends;
  const asked = { club_class, swing_length, since_first: first };
  const found = useQuery(changeQuery(id, trend.reading, trend.at, asked));
  if (found.error) return <Trouble error={found.error} retry={found.refetch} />;
  const { change, since, worst } = found.data ?? {};
  return (
    <section className="mt-3" aria-label="Change" aria-live="polite">
      <fieldset className="join">
        <legend className="sr-only">Since when</legend>
        {([false, true] as const).map((each) => (
          <button
            key={String(each)}
            type="button"
            aria-pressed={first === each}
            className={`btn btn-sm join-item ${first === each ? "btn-primary" : ""}`}
            onClick={() => setFirst(each)}
          >
            {each ? "Since the first swings" : "Since the last lesson"}
          </button>
        ))}
      </fieldset>
      {change && since && (
        <p className="mt-2">
          Since {day(since)}: {changeWords(change, trend.unit, units)} ({countWords(change)}).{" "}
          {settlesWords(change, worst)}
        </p>
      )}
      {found.data?.together && (
        <p className="mt-2 text-sm">{dayWords(found.data.together, trend.unit, units)}</p>
      )}
      {found.data?.repeats && (
        <p className="mt-2 text-sm">{repeatWords(found.data.repeats, trend.unit, units)}</p>
      )}
      {found.data && !change && (
        <p className="mt-2">
          No lesson lies between two swings of which this was looked at: there is no then and now.
        </p>
      )}
    </section>
  );
}

type Together = NonNullable<Schemas["ChangeSince"]["together"]>;

/** A day's swings read together, and the one that is unlike the others. */
function dayWords(
  { day: on, swings, mean, u95, scatter, value, low, high }: Together,
  unit: Unit,
  units: Units,
) {
  const said = (each: number) => number(each, unit, units, true);
  const sign = signBehind(unit, units);
  const all = `The ${swings} swings of ${day(on)} together: ${withError(mean, u95, unit, units, true)}; they scatter by ${number(scatter, unit, units)}${sign}.`;
  if (value === null || low === null || high === null) return all;
  return `${all} The one of ${said(value)}${sign} is unlike the others: by them it would lie between ${said(low)} and ${said(high)}${sign}.`;
}

type Repeats = NonNullable<Schemas["ChangeSince"]["repeats"]>;

/** How far one swing repeats within a day, over all students. */
function repeatWords({ subjects, sem, least_change, single }: Repeats, unit: Unit, units: Units) {
  const said = (each: number) => withSign(each, unit, units);
  return `Over ${subjects} of your students one swing repeats within ${said(sem)} on a day (standard error): of single swings, only a change of more than ${said(least_change)} is one. Of all differences between single swings ${Math.round(Math.max(0, single) * 100)} % are between students (intraclass correlation).`;
}
