import type { Schemas } from "../api/client";
import { DrillShown } from "../parts/DrillShown";
import { day } from "../parts/when";
import { number, type Units, unitSign } from "../units";
import { type Hand, VIEW_WORDS } from "../words";
import { goalWords, readWords } from "./goalWords";

type Plan = Schemas["SentPlan"];
type Focus = Plan["focus"][number];

/** What a lesson is about, in the student's words: each focus with its drills, its goal and its cautions. */
export function PlanParts({ plan, units, hand }: { plan: Plan; units: Units; hand: Hand }) {
  return plan.focus.map((focus) => (
    <section key={focus.fault} className="mt-6 border-t-4 border-brass pt-3 first:mt-0">
      <h2 className="text-lg font-bold">{focus.name}</h2>
      {focus.words && <p className="mt-1 leading-relaxed">{focus.words}</p>}
      {focus.goal && <Goal goal={focus.goal} units={units} hand={hand} />}
      <Cautions texts={focus.cautions} />
      {focus.drills.map((drill) => (
        <Drill key={drill.id} drill={drill} hand={hand} />
      ))}
    </section>
  ));
}

function Goal({ goal, units, hand }: { goal: NonNullable<Focus["goal"]>; units: Units; hand: Hand }) {
  return (
    <p className="mt-2">
      <strong>The goal{goal.by && `, by ${day(goal.by)}`}:</strong> {goalWords(goal, units, hand)}.
      {goal.then && (
        <>
          {" "}
          In this swing {readWords(goal.reading, goal.then.value, goal.unit, units, hand)} (±{" "}
          {number(goal.then.u95, goal.unit, units)}
          {goal.unit === "deg" ? "" : " "}
          {unitSign(goal.unit, units)}).
        </>
      )}
    </p>
  );
}

function Drill({ drill, hand }: { drill: Focus["drills"][number]; hand: Hand }) {
  const rows: [string, string][] = [
    ["Set up", drill.set_up],
    ["Feel", drill.feel],
    ["Not felt", drill.not_felt],
    ["Think of", drill.cue],
    ["How much", drill.dose],
    [
      drill.view ? `In the next clip, ${VIEW_WORDS[drill.view].toLowerCase()}` : "In the next clip",
      drill.camera_shows,
    ],
    ["Done wrong", drill.done_wrong],
  ];
  return (
    <div className="mt-4">
      <h3 className="font-bold">Your drill: {drill.name}</h3>
      <DrillShown shown={drill.shown} name={drill.name} hand={hand} />
      <dl className="mt-2 grid gap-2">
        {rows
          .filter(([, text]) => text)
          .map(([term, text]) => (
            <div key={term}>
              <dt className="text-sm font-semibold">{term}</dt>
              <dd>{text}</dd>
            </div>
          ))}
      </dl>
      {drill.steps.length > 0 && (
        <ol className="mt-2 list-decimal pl-5">
          {drill.steps.map((step) => (
            <li key={step.do}>
              {step.do} <span className="opacity-85">({step.dose})</span>
            </li>
          ))}
        </ol>
      )}
      <Cautions texts={[drill.caution, ...drill.cautions]} />
    </div>
  );
}

function Cautions({ texts }: { texts: string[] }) {
  if (!texts.length) return null;
  return (
    <p className="mt-3 border-l-4 border-brass bg-base-200 p-2 text-sm">
      <strong>Take care.</strong> {texts.join(" ")}
    </p>
  );
}
