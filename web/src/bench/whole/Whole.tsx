import { X } from "lucide-react";
import type { Units } from "../../units";
import { GROUP_TITLES, READING_WORDS } from "../../words";
import { useBench } from "../benchContext";
import type { Side } from "../benchState";
import { Curves } from "./Curves";
import { Relay } from "./Relay";
import { useCourse } from "./useCourse";

/** The swing as a whole, over the rule: a reading's curve, or the order in which the parts start. */
export function Whole({ units }: { units: Units }) {
  const whole = useBench((bench) => bench.whole);
  const curve = useBench((bench) => bench.curve);
  const focus = useBench((bench) => bench.focus?.reading);
  const set = useBench((bench) => bench.set);
  const main: Side = useBench((bench) => (bench.sides.student ? "student" : "reference"));
  const readings = useBench((bench) => bench.sides[main]?.readings);
  const offered = useCourse(main, whole === "curves" ? curve : "").found?.course.offered ?? [];
  if (!whole) return null;
  const shown = focus && offered.includes(focus) ? focus : curve;
  const groups = Object.entries(GROUP_TITLES).map(([group, title]) => ({
    title,
    ids: offered.filter((id) => readings?.some((each) => each.reading === id && each.group === group)),
  }));
  return (
    <section aria-label="The whole swing" className="plate flex h-44 shrink-0 flex-col">
      <div className="flex h-8 shrink-0 items-center gap-1 border-b border-pine/20 px-2">
        <button
          type="button"
          className={`btn btn-xs ${whole === "curves" ? "btn-primary" : ""}`}
          aria-pressed={whole === "curves"}
          onClick={() => set({ whole: "curves" })}
        >
          Curves
        </button>
        <button
          type="button"
          className={`btn btn-xs ${whole === "relay" ? "btn-primary" : ""}`}
          aria-pressed={whole === "relay"}
          onClick={() => set({ whole: "relay" })}
        >
          Relay
        </button>
        {whole === "curves" && (
          <label className="ml-2 flex items-center gap-2 text-xs">
            <span className="sr-only">Curve of</span>
            <select
              className="select select-xs w-56"
              value={shown}
              onChange={(event) => set({ curve: event.target.value, focus: null })}
            >
              {!offered.includes(shown) && <option value={shown}>{READING_WORDS[shown] ?? shown}</option>}
              {groups.map(
                ({ title, ids }) =>
                  ids.length > 0 && (
                    <optgroup key={title} label={title}>
                      {ids.map((id) => (
                        <option key={id} value={id}>
                          {READING_WORDS[id] ?? id}
                        </option>
                      ))}
                    </optgroup>
                  ),
              )}
            </select>
          </label>
        )}
        <button
          type="button"
          className="btn btn-xs btn-square ml-auto"
          aria-label="Close the whole swing"
          title="Close (/)"
          onClick={() => set({ whole: null })}
        >
          <X size={14} aria-hidden />
        </button>
      </div>
      {whole === "curves" ? <Curves reading={shown} units={units} /> : <Relay units={units} />}
    </section>
  );
}
