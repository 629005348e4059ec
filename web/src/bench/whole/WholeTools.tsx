import { ChartSpline, Footprints } from "lucide-react";
import { Toggle } from "../../parts/Toggle";
import { useBench } from "../benchContext";

/** What shows the swing as a whole: curves and relay over the rule, the floor plate beside the stages. */
export function WholeTools() {
  const whole = useBench((bench) => bench.whole);
  const plate = useBench((bench) => bench.plate);
  const set = useBench((bench) => bench.set);
  return (
    <>
      <Toggle
        on={whole !== null}
        label="Curves and relay"
        title="The swing as a whole: curves and relay (/)"
        onClick={() => set({ whole: whole ? null : "curves" })}
      >
        <ChartSpline size={16} aria-hidden />
      </Toggle>
      <Toggle
        on={plate}
        label="Floor plate"
        title="Shoes, ball and hips from above (')"
        onClick={() => set({ plate: !plate })}
      >
        <Footprints size={16} aria-hidden />
      </Toggle>
    </>
  );
}
