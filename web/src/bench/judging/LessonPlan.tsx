import { ArrowDown, ArrowUp, X } from "lucide-react";
import { checkWords, rangeWords } from "../../lesson/goalWords";
import type { Units } from "../../units";
import { momentWords, READING_WORDS, SIGNED } from "../../words";
import { type Focus, type Plan, suggested } from "./choices";
import type { Finding, Judgement } from "./verdict";

interface Props {
  judgement: Judgement;
  units: Units;
  choose: (plan: Plan | null) => void;
}

/** What the lesson is about: what would be chosen, or what was, to be changed. */
export function LessonPlan({ judgement, units, choose }: Props) {
  const { plan, plan_sent: sent } = judgement;
  const focus = plan?.focus ?? [];
  const named = (fault: string) => judgement.findings.find((each) => each.fault === fault)?.name ?? fault;
  const put = (next: Focus[]) => choose({ focus: next });
  return (
    <section aria-label="The lesson is about">
      <h2 className="flex items-baseline justify-between gap-2 bg-pine px-2 py-1 text-sm font-semibold text-paper">
        The lesson is about
        <span className="font-normal">{sent ? "sent" : plan ? `${focus.length} of 3` : "suggested"}</span>
      </h2>
      {!plan && <Suggested judgement={judgement} named={named} take={() => choose(suggested(judgement))} />}
      {plan && focus.length === 0 && (
        <p className="p-2 text-sm">Nothing to work on: the lesson says what to keep.</p>
      )}
      {focus.map((each, i) => (
        <Chosen
          key={each.fault}
          focus={each}
          finding={judgement.findings.find(({ fault }) => fault === each.fault)}
          name={named(each.fault)}
          units={units}
          sent={sent}
          change={(next) => put(focus.map((old) => (old.fault === each.fault ? next : old)))}
          move={(to) => {
            const others = focus.filter((old) => old.fault !== each.fault);
            put([...others.slice(0, to), each, ...others.slice(to)]);
          }}
          place={i}
          count={focus.length}
          remove={() => put(focus.filter((old) => old.fault !== each.fault))}
        />
      ))}
      {plan && !sent && (
        <button
          type="button"
          className="link block min-h-6 px-2 py-1 text-left text-xs"
          onClick={() => choose(null)}
        >
          Choose nothing again
        </button>
      )}
    </section>
  );
}

function Suggested(props: { judgement: Judgement; named: (fault: string) => string; take: () => void }) {
  const { judgement, named, take } = props;
  if (!judgement.focus.length) {
    const seen = judgement.strengths.length > 0 || judgement.left_out.length > 0;
    return (
      <p className="border-b border-base-content/20 p-2 text-sm">
        {!seen
          ? "Too little can be seen to say: peg and mark the swing first."
          : judgement.left_out.length > 0
            ? `Nothing that may be worked on now. ${judgement.left_out.map(({ fault, why }) => `${named(fault)}: ${why}`).join(". ")}.`
            : "Nothing has to change by this model. Tell the student what to keep."}
      </p>
    );
  }
  return (
    <div className="border-b border-base-content/20 p-2 text-sm">
      <ol className="list-decimal pl-5">
        {judgement.focus.map(({ fault, why, cautions }) => (
          <li key={fault}>
            <b>{named(fault)}</b>: {why}.{cautions.length > 0 && <em> {cautions.join(" ")}</em>}
          </li>
        ))}
      </ol>
      {judgement.left_out.map(({ fault, why }) => (
        <p key={fault} className="mt-1 text-xs opacity-90">
          Left out, {named(fault)}: {why}.
        </p>
      ))}
      <button type="button" className="btn btn-sm mt-2" onClick={take}>
        Choose these
      </button>
    </div>
  );
}

interface ChosenProps {
  focus: Focus;
  finding: Finding | undefined;
  name: string;
  units: Units;
  sent: boolean;
  place: number;
  count: number;
  change: (next: Focus) => void;
  move: (to: number) => void;
  remove: () => void;
}

function Chosen({ focus, finding, name, units, sent, place, count, change, move, remove }: ChosenProps) {
  const small = "btn btn-ghost btn-xs btn-square";
  return (
    <fieldset disabled={sent} className="border-b border-base-content/20 p-2 text-sm">
      <legend className="sr-only">{name}</legend>
      <div className="flex items-center gap-1">
        <b className="flex-1">
          {place + 1}. {name}
        </b>
        <button
          type="button"
          className={small}
          aria-label={`${name} earlier`}
          disabled={place === 0}
          onClick={() => move(place - 1)}
        >
          <ArrowUp size={13} aria-hidden />
        </button>
        <button
          type="button"
          className={small}
          aria-label={`${name} later`}
          disabled={place === count - 1}
          onClick={() => move(place + 1)}
        >
          <ArrowDown size={13} aria-hidden />
        </button>
        <button type="button" className={small} aria-label={`Take ${name} out`} onClick={remove}>
          <X size={13} aria-hidden />
        </button>
      </div>
      <textarea
        className="textarea textarea-sm mt-1 w-full"
        rows={2}
        maxLength={600}
        aria-label={`To the student, ${name}`}
        placeholder={finding?.student}
        value={focus.words}
        onChange={(event) => change({ ...focus, words: event.target.value })}
      />
      <Drills focus={focus} finding={finding} name={name} change={change} />
      {focus.goal && finding?.goal && (
        <label className="mt-1 flex flex-wrap items-center gap-1 text-xs">
          Goal: {READING_WORDS[focus.goal.reading] ?? focus.goal.reading}{" "}
          {momentWords(focus.goal.at).toLowerCase()}{" "}
          {rangeWords(focus.goal, finding.goal.unit, units, SIGNED.has(focus.goal.reading))} by
          <input
            type="date"
            className="input input-xs num w-32"
            value={focus.goal.by ?? ""}
            onChange={(event) =>
              focus.goal && change({ ...focus, goal: { ...focus.goal, by: event.target.value || null } })
            }
          />
          <span className="opacity-90">{checkWords(focus.goal.swings)}</span>
        </label>
      )}
    </fieldset>
  );
}

type DrillsProps = Pick<ChosenProps, "focus" | "finding" | "name" | "change">;

/** The drills against a fault: those that are not for this student are named and cannot be chosen. */
function Drills({ focus, finding, name, change }: DrillsProps) {
  const offers = finding?.drills ?? [];
  const chosen = new Map((focus.drills ?? []).map(({ drill, dose }) => [drill, dose]));
  const put = (drills: Map<string, string>) =>
    change({ ...focus, drills: [...drills].map(([drill, dose]) => ({ drill, dose })) });
  if (!offers.length) return <p className="mt-1 text-xs">The book has no drill for it.</p>;
  return (
    <ul className="mt-1 text-xs">
      {offers.map((offer) => {
        const dose = chosen.get(offer.id);
        const barred = offer.barred ? "not for what hurts" : offer.held ? "waits for a physician" : "";
        return (
          <li key={offer.id} className="py-0.5">
            <label className="flex min-h-6 items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={dose !== undefined}
                disabled={Boolean(barred) && dose === undefined}
                onChange={() => {
                  const next = new Map(chosen);
                  if (dose === undefined) next.set(offer.id, offer.dose);
                  else next.delete(offer.id);
                  put(next);
                }}
              />
              <span className="flex-1">
                {offer.name}
                {barred && <em> ({barred})</em>}
              </span>
            </label>
            {dose !== undefined && (
              <input
                className="input input-xs ml-6 w-[calc(100%-1.5rem)]"
                aria-label={`How much of “${offer.name}” for ${name}`}
                maxLength={200}
                value={dose}
                onChange={(event) => put(new Map(chosen).set(offer.id, event.target.value))}
              />
            )}
            {dose !== undefined && offer.cautions.length > 0 && (
              <p className="ml-6">
                <strong>Take care.</strong> {offer.cautions.join(" ")}
              </p>
            )}
          </li>
        );
      })}
    </ul>
  );
}
