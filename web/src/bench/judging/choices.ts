import type { Schemas } from "../../api/client";
import type { Post } from "../../outbox/posts";
import type { Finding, Judgement } from "./verdict";

export type Plan = Schemas["PlanIn"];
export type Focus = Plan["focus"][number];
export type Decision = Schemas["DecisionIn"]["decision"];

const ACTIVE: Finding["verdict"][] = ["shown", "likely"];
const GOAL_DAYS = 28;
export const MOST_FOCUS = 3;

/** A judgement with what was chosen here and is still on its way. */
export function withChoices(judgement: Judgement, posts: Post[]): Judgement {
  return posts.reduce(withOne, judgement);
}

function withOne(judgement: Judgement, post: Post): Judgement {
  if (post.kind === "plan") return { ...judgement, plan: post.plan };
  if (post.kind !== "decision") return judgement;
  const { decision, reason = "" } = post.said;
  const findings = judgement.findings.map((finding): Finding => {
    if (finding.fault !== post.fault) return finding;
    const decided = decision && { decision, reason, verdict_then: finding.verdict, changed: false };
    const active = decision ? decision !== "rejected" : ACTIVE.includes(finding.verdict);
    return { ...finding, decided: decided || null, active };
  });
  return { ...judgement, findings };
}

/** What the lesson would be about if nobody chose otherwise, with the first drill that may be done. */
export function suggested(judgement: Judgement, today = new Date()): Plan {
  const focus = judgement.focus.flatMap(({ fault }) => {
    const finding = judgement.findings.find((each) => each.fault === fault);
    return finding ? [focusOn(finding, today)] : [];
  });
  return { focus };
}

/** A finding as a focus: own words said before, a drill that may be done, a goal four weeks on. */
export function focusOn(finding: Finding, today = new Date()): Focus {
  const drill = finding.drills.find(({ barred, held }) => !barred && !held);
  const by = new Date(today.getTime() + GOAL_DAYS * 86_400_000).toISOString().slice(0, 10);
  return {
    fault: finding.fault,
    words: finding.phrase,
    drills: drill ? [{ drill: drill.id, dose: drill.dose }] : [],
    goal: finding.goal && {
      reading: finding.goal.reading,
      at: finding.goal.at,
      low: finding.goal.low,
      high: finding.goal.high,
      swings: finding.goal.swings,
      by,
    },
  };
}

/** The faults that are pinned, and whether somebody chose them. */
export function pins(judgement: Judgement): { faults: string[]; chosen: boolean } {
  const plan = judgement.plan;
  return { faults: (plan ?? judgement).focus.map(({ fault }) => fault), chosen: plan !== null };
}

/** The plan with a fault pinned, in place of the last where there are three; or without it where it was. */
export function pinned(judgement: Judgement, finding: Finding): Plan {
  const focus = (judgement.plan ?? suggested(judgement)).focus;
  const without = focus.filter(({ fault }) => fault !== finding.fault);
  if (without.length < focus.length) return { focus: without };
  return { focus: [...focus.slice(0, MOST_FOCUS - 1), focusOn(finding)] };
}
