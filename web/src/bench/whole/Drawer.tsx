import { Toolbar, ToolbarItem } from "@ariakit/react";
import { useEffect } from "react";
import type { Units } from "../../units";
import { GROUP_TITLES, READING_WORDS } from "../../words";
import { useBench } from "../benchContext";
import type { DrawerPart, Side } from "../benchState";
import { clickOnly } from "../clickOnly";
import { DRAWER } from "../commands/benchDoings";
import { hint } from "../commands/table";
import { PressureView } from "../pressure/PressureView";
import { FloorTable } from "../readings/FloorTable";
import { FromAbove } from "../readings/FromAbove";
import { sayCurve } from "../walk/seen";
import { Curves } from "./Curves";
import { CurveTable } from "./CurveTable";
import { Relay } from "./Relay";
import { useCourse } from "./useCourse";

const PART_NAMES: Record<DrawerPart, string> = {
  curves: "Curves",
  relay: "Relay",
  floor: "From above",
  pressure: "Pressure",
};

/** The swing as a whole, in a drawer over the rule: a reading's curve, the relay, the floor, the pressure. */
export function Drawer({ units }: { units: Units }) {
  const open = useBench((bench) => bench.drawer);
  const main: Side = useBench((bench) => (bench.sides.student ? "student" : "reference"));
  const tabled = useBench((bench) => bench.tabled);
  const set = useBench((bench) => bench.set);
  return (
    <section aria-label="The whole swing" className="plate shrink-0">
      <div className="flex h-7 items-center gap-1 px-1">
        <Toolbar {...clickOnly} className="flex items-center gap-1" aria-label="Drawer">
          {DRAWER.map((part, i) => (
            <ToolbarItem
              key={part}
              className={`btn btn-xs font-normal ${open === part ? "btn-primary" : ""}`}
              aria-expanded={open === part}
              title={`${PART_NAMES[part]} (${i + 1}); ${hint("drawer").toLowerCase()}`}
              onClick={() => set({ drawer: open === part ? null : part })}
            >
              {PART_NAMES[part]}
            </ToolbarItem>
          ))}
        </Toolbar>
        {open === "curves" && <CurveChoice main={main} />}
        {open && open !== "relay" && (
          <button
            {...clickOnly}
            type="button"
            className={`btn btn-xs font-normal ${tabled ? "btn-primary" : ""} ${open === "curves" ? "" : "ml-auto"}`}
            aria-pressed={tabled}
            onClick={() => set({ tabled: !tabled })}
          >
            As figures
          </button>
        )}
      </div>
      {open && (
        <div
          className={`flex flex-col border-t border-base-content/20 ${open === "floor" || open === "pressure" ? "h-58" : "h-44"}`}
        >
          {open === "curves" && <ChosenCurve main={main} units={units} tabled={tabled} />}
          {open === "relay" && <Relay units={units} />}
          {open === "floor" && (tabled ? <FloorTable units={units} /> : <FromAbove units={units} />)}
          {open === "pressure" && <PressureView key={main} side={main} units={units} tabled={tabled} />}
        </div>
      )}
    </section>
  );
}

/** The reading whose curve is drawn: the one that is looked into, if it has one, before the chosen one. */
function useShown(main: Side): { shown: string; offered: string[] } {
  const curve = useBench((bench) => bench.curve);
  const focus = useBench((bench) => bench.focus?.reading);
  const offered = useCourse(main, [curve]).found?.course.offered ?? [];
  return { shown: focus && offered.includes(focus) ? focus : curve, offered };
}

function ChosenCurve({ main, units, tabled }: { main: Side; units: Units; tabled: boolean }) {
  const { shown } = useShown(main);
  useEffect(() => {
    sayCurve(shown);
    return () => sayCurve(null);
  }, [shown]);
  return tabled ? <CurveTable reading={shown} units={units} /> : <Curves reading={shown} units={units} />;
}

function CurveChoice({ main }: { main: Side }) {
  const { shown, offered } = useShown(main);
  const readings = useBench((bench) => bench.sides[main]?.readings);
  const set = useBench((bench) => bench.set);
  const groups = Object.entries(GROUP_TITLES).map(([group, title]) => ({
    title,
    ids: offered.filter((id) => readings?.some((each) => each.reading === id && each.group === group)),
  }));
  return (
    <label className="ml-auto flex items-center gap-2 text-xs">
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
  );
}
