import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { number, type Units, unitSign, withErrorOrNothing } from "../../units";
import { momentWords, READING_WORDS, SIGNED } from "../../words";
import { asked } from "../readings/NextClick";
import { type Decision, pins } from "./choices";
import { Decide } from "./Decide";
import { type Finding, type Judgement, percent, VERDICT_WORDS, VerdictPlate } from "./verdict";

type Need = Schemas["NeedOut"];

interface Props {
  judgement: Judgement;
  chosen: string | null;
  choose: (fault: string) => void;
  take: (need: Need) => void;
  units: Units;
  decide: (finding: Finding, decision: Decision, reason?: string) => void;
  pin: (finding: Finding) => void;
}

/** What stands out, by the time of the swing; then what is open; then what nobody can see. */
export function Findings({ judgement, ...rest }: Props) {
  const of = (...verdicts: Finding["verdict"][]) =>
    judgement.findings.filter(({ verdict, decided }) => verdicts.includes(verdict) && !decided);
  const active = judgement.findings.filter((each) => each.active);
  const open = of("open");
  const unseen = of("cannot_be_seen");
  const rejected = judgement.findings.filter(({ decided }) => decided?.decision === "rejected");
  const pinned = pins(judgement).faults;
  const row = (finding: Finding) => (
    <Row
      key={finding.fault}
      finding={finding}
      why={whyOf(judgement, finding.fault)}
      isPinned={pinned.includes(finding.fault)}
      sent={judgement.plan_sent}
      {...rest}
    />
  );
  return (
    <>
      <h2 className="flex items-baseline justify-between gap-2 bg-pine px-2 py-1 text-sm font-semibold text-paper">
        <span>
          What stands out, by{" "}
          <Link className="underline" to={`/book/models?model=${judgement.model}`}>
            {judgement.name}
          </Link>
        </span>
        <span className="font-normal">
          {active.length} of {judgement.findings.length}
        </span>
      </h2>
      {active.length === 0 && (
        <p className="p-2 text-sm">
          Nothing stands out by this model.{" "}
          {judgement.strengths.length > 0 ? "What to keep is below." : "Peg and mark the swing first (M)."}
        </p>
      )}
      {[...active, ...open].map(row)}
      {unseen.length > 0 && (
        <details>
          <summary className="cursor-pointer border-b border-base-content/20 px-2 py-1 text-sm">
            {unseen.length} cannot be seen in this swing
          </summary>
          {unseen.map(row)}
        </details>
      )}
      {rejected.length > 0 && (
        <details>
          <summary className="cursor-pointer border-b border-base-content/20 px-2 py-1 text-sm">
            {rejected.length} rejected
          </summary>
          {rejected.map(row)}
        </details>
      )}
      {judgement.clashes.map((clash) => (
        <p key={clash} className="border-b border-base-content/20 px-2 py-1 text-xs">
          <b>Clash:</b> {clash}
        </p>
      ))}
      <Strengths judgement={judgement} />
    </>
  );
}

interface RowProps extends Omit<Props, "judgement"> {
  finding: Finding;
  why?: string;
  isPinned: boolean;
  sent: boolean;
}

function Row(props: RowProps) {
  const { finding, why, isPinned, sent, chosen, choose, take, units, decide, pin } = props;
  const open = chosen === finding.fault;
  return (
    <div
      className={`border-b border-l-4 border-base-content/20 ${open ? "border-l-brass bg-base-200" : "border-l-transparent"}`}
    >
      <button
        type="button"
        data-prints
        aria-expanded={open}
        data-testid={`finding-${finding.fault}`}
        className="flex w-full items-start gap-2 px-2 py-1.5 text-left text-sm hover:bg-base-200"
        onClick={() => choose(finding.fault)}
      >
        <VerdictPlate of={finding.verdict} />
        <span className="min-w-0 flex-1">
          <span className="font-semibold">{finding.name}</span>
          {finding.provisional && <em className="text-xs"> provisional</em>}
          {finding.verdict !== "cannot_be_seen" && (
            <span className="block text-xs opacity-90">{finding.teacher}</span>
          )}
          {why && <span className="block text-xs font-medium">Suggested: {why}.</span>}
          {finding.decided && (
            <span className="block text-xs font-medium">
              {DECIDED_WORDS[finding.decided.decision]}
              {finding.decided.changed && ", and what is read has changed since"}
            </span>
          )}
        </span>
        <span className="num shrink-0 text-right text-xs leading-tight">
          {finding.verdict === "cannot_be_seen" ? "" : percent(finding.certainty)}
          <span className="block">
            {finding.verdict === "shown" || finding.verdict === "likely"
              ? finding.size
              : VERDICT_WORDS[finding.verdict]}
          </span>
          <span className="sr-only">{VERDICT_WORDS[finding.verdict]}</span>
        </span>
      </button>
      {(open || finding.verdict === "open") && finding.settled_by.length > 0 && (
        <ul className="px-2 pb-1 pl-8 text-xs">
          {finding.settled_by.map(({ need, certainty }) => (
            <li key={`${need.kind} ${need.name} ${need.at}`}>
              <button type="button" className="link min-h-6 text-left" onClick={() => take(need)}>
                {capital(asked(need))}
                {certainty !== null &&
                  `: ${percent(Math.max(finding.certainty, 1 - finding.certainty))} → ${percent(certainty)}`}
              </button>
            </li>
          ))}
        </ul>
      )}
      {open && <Evidence finding={finding} units={units} />}
      {open && (
        <Decide
          finding={finding}
          isPinned={isPinned}
          sent={sent}
          decide={(decision, reason) => decide(finding, decision, reason)}
          pin={() => pin(finding)}
        />
      )}
    </div>
  );
}

/** What each condition of the evidence says, and the words for the student. */
function Evidence({ finding, units }: { finding: Finding; units: Units }) {
  return (
    <div className="flex flex-col gap-1 px-2 pb-2 pl-8 text-xs">
      <table className="w-full">
        <caption className="sr-only">Evidence</caption>
        <tbody>
          {finding.witnesses.map((each) => (
            <tr key={`${each.reading} ${each.at} ${each.since} ${each.way}`}>
              <th scope="row" className="pr-2 text-left font-normal">
                {READING_WORDS[each.reading] ?? each.reading} {momentWords(each.at).toLowerCase()}
                {each.since && `, since ${momentWords(each.since).toLowerCase()}`}
              </th>
              <td className="num pr-2 text-right whitespace-nowrap">
                {each.value === null || each.u95 === null
                  ? "not seen"
                  : withErrorOrNothing(each.value, each.u95, each.unit, units, SIGNED.has(each.reading))}
              </td>
              <td className="num text-right whitespace-nowrap">
                {each.way > 0 ? "> " : "< "}
                {number(each.limit, each.unit, units, SIGNED.has(each.reading))} {unitSign(each.unit, units)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {finding.verdict !== "cannot_be_seen" && (
        <p>
          <b>To the student:</b> {finding.student}
        </p>
      )}
      {finding.ball.length > 0 && (
        <p>
          <b>The ball:</b> {finding.ball.map((miss) => miss.replace("_", "-")).join(", ")}.
        </p>
      )}
    </div>
  );
}

function Strengths({ judgement }: { judgement: Judgement }) {
  if (!judgement.strengths.length) return null;
  return (
    <>
      <h2 className="bg-pine px-2 py-1 text-sm font-semibold text-paper">Keep</h2>
      <ul>
        {judgement.strengths.map(({ words, certainty }) => (
          <li
            key={words}
            className="flex items-baseline gap-2 border-b border-base-content/20 px-2 py-1 text-sm"
          >
            <svg width={10} height={10} aria-hidden="true" className="shrink-0">
              <circle cx={5} cy={5} r={4.5} fill="currentColor" />
            </svg>
            <span className="flex-1">{words}</span>
            <span className="num text-xs">{percent(certainty)}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

const DECIDED_WORDS = { accepted: "Accepted", rejected: "Rejected", added: "Added by eye" };
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const whyOf = (judgement: Judgement, fault: string) =>
  judgement.focus.find((each) => each.fault === fault)?.why;
