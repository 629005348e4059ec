import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { TapePicture } from "../drawn/TapePicture";
import { DrillShown } from "../parts/DrillShown";
import { day } from "../parts/when";
import { MISS_WORDS } from "../students/bodyWords";
import { type Units, withSign } from "../units";
import { type Hand, VIEW_WORDS } from "../words";
import { checkWords, goalWords, readWords } from "./goalWords";

type Plan = Schemas["SentPlan"];
type Focus = Plan["focus"][number];

/** A focus in the student's words: why it matters, what to do, what to take care of, and the goal. */
export function FocusPart(props: {
  focus: Focus;
  chain: Plan["chain"];
  units: Units;
  hand: Hand;
  ladder?: Ladder;
}) {
  const { focus, chain, units, hand, ladder } = props;
  return (
    <>
      <div className="mt-3 border-l-4 border-brass bg-base-200 p-3">
        <h3 className="font-bold">{focus.name}</h3>
        {focus.words && <p className="mt-1 leading-relaxed">{focus.words}</p>}
      </div>
      {chain.length > 1 && <WhyItMatters chain={chain} />}
      <Cautions texts={focus.cautions} />
      {focus.drills.map((drill) => (
        <Drill key={drill.id} drill={drill} hand={hand} ladder={ladder} />
      ))}
      {focus.goal && <Goal goal={focus.goal} units={units} hand={hand} />}
    </>
  );
}

/** What leads to what, from the focus to the usual miss. */
function WhyItMatters({ chain }: { chain: Plan["chain"] }) {
  return (
    <ol className="mt-3 flex flex-wrap items-center gap-y-2 text-sm" aria-label="Why it matters">
      {chain.map(({ name, miss }, i) => (
        <li key={name || miss} className="flex items-center">
          {i > 0 && <span className="h-0.5 w-4 bg-brass" aria-hidden />}
          <span
            className={`rounded-sm border px-2 py-1 ${miss ? "border-pine bg-pine font-semibold text-paper" : "border-base-content bg-base-200"}`}
          >
            {miss ? MISS_WORDS[miss] : name}
          </span>
        </li>
      ))}
    </ol>
  );
}

function Goal({ goal, units, hand }: { goal: NonNullable<Focus["goal"]>; units: Units; hand: Hand }) {
  return (
    <section className="mt-6">
      <h3 className="font-bold">Goal{goal.by && ` by ${day(goal.by)}`}</h3>
      <p className="first-letter:uppercase">
        {goalWords(goal, units, hand)}. {checkWords(goal.swings)}
        {goal.then && (
          <>
            {" "}
            In this swing {readWords(goal.reading, goal.then.value, goal.unit, units, hand)} (±{" "}
            {withSign(goal.then.u95, goal.unit, units)}).
          </>
        )}
      </p>
      {goal.then && (
        <TapePicture
          band={{ low: goal.low ?? null, high: goal.high ?? null }}
          unit={goal.unit}
          value={goal.then.value}
          u95={goal.then.u95}
          units={units}
        />
      )}
    </section>
  );
}

type DrillSent = Focus["drills"][number];
/** The steps of a drill where they can be ticked. */
export type Ladder = (drill: DrillSent) => ReactNode;

export function Drill({ drill, hand, ladder }: { drill: DrillSent; hand: Hand; ladder?: Ladder }) {
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
      <h3 className="font-bold">Do this: {drill.name}</h3>
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
      {ladder?.(drill)}
      {drill.steps.length > 0 && (
        <ol className={`mt-2 ${ladder ? "hidden print:block" : ""}`} aria-label="Step by step">
          {drill.steps.map((step, i) => (
            <li key={step.do} className="flex gap-3 border-t border-base-content/20 py-2">
              <span className="num w-5 shrink-0" aria-hidden>
                {i + 1}
              </span>
              <span>
                {step.do}
                <span className="block text-sm opacity-85">{step.dose}</span>
              </span>
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
