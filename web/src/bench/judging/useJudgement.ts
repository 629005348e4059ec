import { useQuery } from "@tanstack/react-query";
import { judgementQuery, meQuery } from "../../api/queries";
import { useBench, useBenchStore } from "../benchContext";
import type { Side } from "../benchState";
import { follow } from "../readings/follow";
import type { Judgement } from "./verdict";

/** The judgement of the swing on a side, judged anew when what it is read from changes. */
export function useJudgement(side: Side) {
  const id = useBench((bench) => bench.sides[side]?.swing.id ?? "");
  const state = useBench((bench) => bench.sides[side]?.state ?? "");
  const units = useQuery(meQuery).data?.units ?? "cm"; // its sentences hold lengths
  return useQuery({ ...judgementQuery(id, state, units), enabled: id !== "" && state !== "" });
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
