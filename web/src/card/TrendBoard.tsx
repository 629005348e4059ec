import { useQuery } from "@tanstack/react-query";
import { Download } from "lucide-react";
import { useDeferredValue, useMemo } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../api/client";
import { type TrendsWanted, trendsQuery } from "../api/queries";
import { chosenNow } from "../parts/address";
import { NearSight } from "../parts/NearSight";
import { Trouble } from "../parts/Trouble";
import type { Units } from "../units";
import { CLUB_CLASS_WORDS, type ClubClass, momentWords, READING_WORDS, SWING_LENGTH_WORDS } from "../words";
import type { Goal } from "./Goals";
import { type GoalOnTime, TrendChart } from "./TrendChart";
import { TrendDetail } from "./TrendDetail";
import { inOrder, spanOf, type Trend, timed } from "./trend";

const FIRST_SHOWN = 6;
const SMALL = { width: 310, height: 108 };

// The words and rooms of what is not in sight are laid out once they come there.
const LATER =
  "[content-visibility:auto] [contain-intrinsic-size:auto_150px] print:[content-visibility:visible]";

/** A student's readings over time as small charts, those with a goal first; one opens to its table and change. */
export function TrendBoard(props: {
  id: string;
  goals: Goal[];
  practised: Schemas["PractisedOut"][];
  units: Units;
}) {
  const { id, goals, practised, units } = props;
  const [params, setParams] = useSearchParams();
  const say = (name: string, value: string) =>
    setParams(
      () => {
        const next = chosenNow();
        if (value) next.set(name, value);
        else next.delete(name);
        return next;
      },
      { replace: true },
    );
  const wanted = wantedOf(params.get("swings") ?? "");
  const found = useQuery(trendsQuery(id, wanted));
  const trends = found.data;
  const like = useMemo(
    () =>
      goals.filter(
        (goal) => goal.club_class === trends?.club_class && goal.swing_length === trends.swing_length,
      ),
    [goals, trends],
  );
  const sorted = useMemo(
    () =>
      trends
        ? inOrder(
            trends.trends,
            like.map(({ goal }) => goal),
          )
        : [],
    [trends, like],
  );
  const drawn = useMemo(() => sorted.map((trend) => ({ trend, goal: onTime(like, trend) })), [sorted, like]);
  const days = useMemo(
    () => [...new Set(practised.map(({ day }) => Date.parse(`${day}T12:00`)))],
    [practised],
  );
  const times = useMemo(() => timed(trends?.swings ?? []), [trends]);
  const span = useMemo(() => (trends ? spanOf(trends) : { from: 0, to: 1, months: [] }), [trends]);
  const all = params.get("show") === "all";
  // Those in sight first: the page answers while the others get their room.
  const more = useDeferredValue(all && trends !== undefined, false);
  if (found.error && !trends) return <Trouble error={found.error} retry={found.refetch} />;
  if (!trends) return <p>Fetching what was read…</p>;
  if (!trends.trends.length)
    return (
      <p className="plate border-dashed p-4">
        Nothing is in the log yet. What you mark on a swing stands here a quarter of a minute later.
      </p>
    );
  const opened = drawn.find(({ trend }) => keyOf(trend) === params.get("trend"));
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-2 text-sm print:hidden">
        <select
          className="select select-sm w-auto"
          aria-label="Which swings"
          value={`${trends.club_class} ${trends.swing_length}`}
          onChange={(event) => say("swings", event.target.value)}
        >
          {trends.kinds.map(({ club_class, swing_length, swings }) => (
            <option key={`${club_class} ${swing_length}`} value={`${club_class} ${swing_length}`}>
              {CLUB_CLASS_WORDS[club_class]}, {SWING_LENGTH_WORDS[swing_length].toLowerCase()}: {swings}{" "}
              {swings === 1 ? "swing" : "swings"}
            </option>
          ))}
        </select>
        <a className="btn btn-sm" href={`/api/students/${id}/log.csv`} download="log.csv">
          <Download size={14} aria-hidden /> The log as a table
        </a>
      </div>
      <ul className="grid gap-2 sm:grid-cols-2">
        {(all && more ? drawn : drawn.slice(0, FIRST_SHOWN)).map(({ trend, goal }, i) => (
          <li key={keyOf(trend)} className={LATER}>
            <button
              type="button"
              className="plate block w-full p-2 text-left hover:border-brass"
              data-testid={`trend-${keyOf(trend)}`}
              onClick={() => say("trend", keyOf(trend))}
            >
              <span className="block truncate text-sm">
                <span className="font-semibold">{READING_WORDS[trend.reading] ?? trend.reading}</span>{" "}
                {momentWords(trend.at).toLowerCase()}
              </span>
              <NearSight {...SMALL} atOnce={i < FIRST_SHOWN}>
                <TrendChart
                  trend={trend}
                  swings={times}
                  lessons={trends.lessons}
                  practised={days}
                  goal={goal}
                  span={span}
                  units={units}
                  {...SMALL}
                />
              </NearSight>
            </button>
          </li>
        ))}
      </ul>
      {sorted.length > FIRST_SHOWN && (
        <button
          type="button"
          className="btn btn-sm mt-2 print:hidden"
          onClick={() => say("show", all ? "" : "all")}
        >
          {all ? "Show fewer" : `Show all ${sorted.length}`}
        </button>
      )}
      {opened && (
        <TrendDetail
          id={id}
          trend={opened.trend}
          trends={trends}
          times={times}
          practised={days}
          goal={opened.goal}
          span={span}
          units={units}
          close={() => say("trend", "")}
        />
      )}
    </>
  );
}

const keyOf = ({ reading, at }: Trend) => `${reading}.${at}`;

function wantedOf(said: string): TrendsWanted {
  const [club, length] = said.split(" ");
  if (!club || !(club in CLUB_CLASS_WORDS)) return {};
  const known = length && length in SWING_LENGTH_WORDS ? { swing_length: length as "full" } : {};
  return { club_class: club as ClubClass, ...known };
}

/** The goal that a reading has, where it is drawn. */
function onTime(goals: Goal[], trend: Trend): GoalOnTime | undefined {
  const found = goals.find(({ goal }) => goal.reading === trend.reading && goal.at === trend.at);
  if (!found) return undefined;
  return {
    low: found.goal.low ?? null,
    high: found.goal.high ?? null,
    from: Date.parse(found.set_on),
    by: found.goal.by ? Date.parse(found.goal.by) : null,
  };
}
