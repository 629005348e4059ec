import { useQuery } from "@tanstack/react-query";
import { judgementQuery, meQuery } from "../../api/queries";
import { outbox, useOutbox } from "../../outbox";
import { judgingLane, type Post } from "../../outbox/posts";
import { useBench, useBenchStore } from "../benchContext";
import type { Side } from "../benchState";
import { follow } from "../readings/follow";
import { type Decision, type Plan, withChoices } from "./choices";
import type { Finding, Judgement } from "./verdict";

const PAUSE_MS = 400;

/** The judgement of the swing on a side, judged anew when what it is read from changes, with what is chosen here. */
export function useJudgement(side: Side, model = "") {
  const id = useBench((bench) => bench.sides[side]?.swing.id ?? "");
  const state = useBench((bench) => bench.sides[side]?.state ?? "");
  const units = useQuery(meQuery).data?.units ?? "cm"; // its sentences hold lengths
  const { data, error } = useQuery(judgementQuery(id, state, units, model));
  useOutbox(); // each letter that is typed into a plan is drawn
  const unsent = model ? [] : outbox().unsent(judgingLane(id));
  return {
    data:
      data &&
      withChoices(
        data,
        unsent.map(({ post }) => post),
      ),
    error,
  };
}

/** How to decide on a fault, and to choose what the lesson is about. */
export function useChoices(side: Side) {
  const id = useBench((bench) => bench.sides[side]?.swing.id ?? "");
  const send = (subject: string, what: string, post: Post) =>
    outbox().add(
      { id: crypto.randomUUID(), lane: judgingLane(id), subject, what, post },
      PAUSE_MS,
      post.kind === "plan",
    );
  return {
    decide: (
      finding: Pick<Finding, "fault" | "name" | "verdict" | "certainty">,
      decision: Decision,
      reason = "",
    ) =>
      send(finding.fault, `what was decided on “${finding.name}”`, {
        kind: "decision",
        swingId: id,
        fault: finding.fault,
        said: {
          decision,
          reason,
          verdict_then: finding.verdict,
          certainty_then: Math.min(1, Math.max(0, finding.certainty)),
        },
      }),
    choose: (plan: Plan | null) => send("plan", "the lesson's focus", { kind: "plan", swingId: id, plan }),
  };
}

/** The finding that is open, and how to open one: the stage goes to the frame that shows it. */
export function useChosen(side: Side, judgement: Judgement | undefined) {
  const bench = useBenchStore();
  const chosen = useBench((state) => state.finding);
  const choose = (fault: string) => {
    if (chosen === fault) {
      bench.getState().set({ finding: null });
      return;
    }
    bench.getState().set({ finding: fault, focus: null });
    const finding = judgement?.findings.find((each) => each.fault === fault);
    const readings = bench.getState().sides[side]?.readings ?? [];
    // The surest evidence that was read: its frame is the one to look at.
    const seen = (finding?.witnesses ?? []).filter(({ value }) => value !== null);
    const surest = seen.sort((a, b) => (b.certainty ?? 0) - (a.certainty ?? 0))[0];
    const reading = readings.find((each) => each.reading === surest?.reading && each.at === surest?.at);
    if (reading && reading.status === "ok") follow(bench, side, reading);
  };
  return { chosen, choose };
}
