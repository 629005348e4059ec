import { useBench } from "../benchContext";
import type { Side } from "../benchState";
import { CauseChain } from "./CauseChain";
import { useChosen, useJudgement } from "./useJudgement";

/** The cause chain beneath the stages. */
export function ChainRow() {
  const side: Side = useBench((bench) => (bench.sides.student ? "student" : "reference"));
  const { data } = useJudgement(side);
  const { chosen, choose } = useChosen(side, data);
  return data ? <CauseChain judgement={data} chosen={chosen} choose={choose} /> : null;
}
