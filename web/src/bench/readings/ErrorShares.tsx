import { useQuery } from "@tanstack/react-query";
import { budgetsQuery } from "../../api/queries";
import { useBench } from "../benchContext";
import type { Reading } from "./reading";

const WORTH_SAYING = 0.005;
const MUCH = 0.5;

/** Where a reading's interval comes from; fetched when somebody looks into it. */
export function ErrorShares({ reading: { reading, at } }: { reading: Reading }) {
  const swing = useBench(({ sides }) => sides.student ?? sides.reference);
  const query = useQuery(budgetsQuery(swing?.swing.id ?? "", swing?.state ?? "", [reading]));
  const found = query.data?.find((each) => each.reading === reading && each.at === at);
  if (!found) return query.error ? <p>{query.error.message}</p> : null;
  const { budget, largest_error } = found;
  return (
    <>
      <p className="font-semibold">Where its ± comes from</p>
      <dl className="grid grid-cols-[auto_1fr_auto] items-center gap-x-2">
        {budget
          .filter(({ share }) => share >= WORTH_SAYING)
          .map(({ source, share }) => (
            <div key={source} className="contents">
              <dt>{source}</dt>
              <dd className="h-2 border border-base-content/30">
                <div className="h-full bg-clay/70" style={{ width: `${share * 100}%` }} />
              </dd>
              <dd className="num text-right">{Math.round(share * 100)} %</dd>
            </div>
          ))}
      </dl>
      {largest_error && <p>Most by one thing: {largest_error}.</p>}
      {(budget[0]?.source === "marks" ? budget[0].share : 0) >= MUCH && (
        <p>Marked on two frames to either side as well, a mark is surer.</p>
      )}
    </>
  );
}
