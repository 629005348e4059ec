import { momentWords } from "../../words";
import { cord, layOut, missPlate, PLATE } from "./chainLayout";
import { pins } from "./choices";
import { type Judgement, percent } from "./verdict";

/** Findings as plates from the set-up to the strike, joined by cords; what the lesson is about is pinned. */
export function CauseChain(props: {
  judgement: Judgement;
  chosen: string | null;
  choose: (fault: string) => void;
}) {
  const { judgement, chosen, choose } = props;
  const laid = layOut(judgement);
  const by = new Map(laid.plates.map((plate) => [plate.fault, plate]));
  const found = new Map(judgement.findings.map((finding) => [finding.fault, finding]));
  const { faults: pinned, chosen: isChosen } = pins(judgement);
  const misses = missPlate(judgement, laid);
  const width = misses ? misses.x + PLATE.width : laid.width;
  return (
    <section aria-label="Cause chain" className="plate max-h-52 shrink-0 overflow-auto p-2">
      {laid.plates.length === 0 ? (
        <p className="text-sm">
          Nothing that is shown or likely: there is no chain to break. Keep what is good.
        </p>
      ) : (
        <div className="relative" style={{ width: width + 30, height: laid.height + 18 }}>
          <svg
            width={width + 30}
            height={laid.height}
            className="pointer-events-none absolute inset-0"
            aria-hidden="true"
          >
            {judgement.links.map(({ cause, effect, makes_room }) => {
              const [from, to] = [by.get(cause), by.get(effect)];
              return from && to ? (
                <path
                  key={`${cause} ${effect}`}
                  d={cord(from, to)}
                  fill="none"
                  stroke="var(--color-accent)"
                  strokeWidth={2}
                  strokeDasharray={makes_room ? "4 4" : undefined}
                />
              ) : null;
            })}
            {misses?.from.map((fault) => {
              const from = by.get(fault);
              return from ? (
                <path
                  key={fault}
                  d={cord(from, { fault: "", x: misses.x, y: misses.y })}
                  fill="none"
                  stroke="currentColor"
                  strokeWidth={1}
                />
              ) : null;
            })}
          </svg>
          {laid.plates.map(({ fault, x, y }) => {
            const finding = found.get(fault);
            if (!finding) return null;
            const effects = judgement.links.filter((link) => link.cause === fault);
            return (
              <button
                key={fault}
                type="button"
                data-testid={`chain-${fault}`}
                aria-pressed={chosen === fault}
                className={`absolute border bg-base-100 px-1.5 py-0.5 text-left text-xs leading-tight ${
                  finding.verdict === "shown" || finding.decided ? "" : "border-dashed"
                } ${chosen === fault ? "border-2 border-brass" : "border-base-content/60"}`}
                style={{ left: x, top: y, width: PLATE.width, height: PLATE.height }}
                onClick={() => choose(fault)}
              >
                <span className="line-clamp-2 block pr-2 font-semibold">{finding.name}</span>
                <span className="sr-only">
                  {percent(finding.certainty)}, {finding.size}, {momentWords(finding.moment).toLowerCase()}.
                  {effects.length > 0 &&
                    ` Leads to ${effects.map(({ effect }) => found.get(effect)?.name).join(", ")}.`}
                  {pinned.includes(fault) &&
                    (isChosen ? " The lesson is about this." : " Suggested for the lesson.")}
                </span>
                {pinned.includes(fault) && (
                  <svg width={13} height={13} className="absolute -top-1.5 -right-1.5" aria-hidden="true">
                    <circle
                      cx={6.5}
                      cy={6.5}
                      r={5.5}
                      fill={isChosen ? "var(--color-accent)" : "var(--color-base-100)"}
                      stroke="currentColor"
                      strokeWidth={1}
                      strokeDasharray={isChosen ? undefined : "2 2"}
                    />
                    <circle cx={5} cy={5} r={1.4} fill="white" />
                  </svg>
                )}
              </button>
            );
          })}
          {misses && (
            <p
              data-testid="chain-miss"
              className="absolute rounded-full border border-base-content/60 bg-base-200 px-2 py-1 text-xs leading-tight"
              style={{ left: misses.x, top: misses.y, width: PLATE.width }}
            >
              <span className="block font-semibold">{misses.words}</span>
              {misses.from.length === 0 ? "not explained" : "the usual miss"}
            </p>
          )}
          {laid.columns.map(({ moment, x }) => (
            <span key={moment} className="num absolute bottom-0 text-[11px] opacity-80" style={{ left: x }}>
              {momentWords(moment).toLowerCase()}
            </span>
          ))}
        </div>
      )}
    </section>
  );
}
