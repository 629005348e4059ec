import { useBench } from "../benchContext";
import { clickOnly } from "../clickOnly";
import { hint } from "../commands/table";
import { STATION_ABOUT, STATION_WORDS, STATIONS } from "./stations";

/** The four stations along a piece of rule, in the order of the work. */
export function StationTabs() {
  const station = useBench((bench) => bench.station);
  const go = useBench((bench) => bench.goToStation);
  return (
    <nav aria-label="Stations" className="tape-edge flex h-9! shrink-0 items-stretch">
      {STATIONS.map((each) => (
        <button
          {...clickOnly}
          key={each}
          type="button"
          className={`relative px-3 pb-2 text-sm ${each === station ? "font-bold" : "opacity-80 hover:opacity-100"}`}
          aria-current={each === station ? "step" : undefined}
          title={hint(each, STATION_ABOUT[each])}
          onClick={() => go(each)}
        >
          {STATION_WORDS[each]}
          {each === station && (
            <svg
              className="absolute inset-x-0 bottom-0 mx-auto"
              width={12}
              height={14}
              viewBox="0 0 12 14"
              aria-hidden="true"
            >
              <path d="M6 14V4" stroke="var(--color-accent)" strokeWidth={3} />
              <circle cx={6} cy={4} r={3.5} fill="var(--color-accent)" />
            </svg>
          )}
        </button>
      ))}
    </nav>
  );
}
