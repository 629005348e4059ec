import { useMemo } from "react";
import { useBench } from "../benchContext";
import { onOf, type Side, timelineFrom } from "../benchState";
import type { Timeline } from "./pegLink";
import { layRuler, type RulerLayout } from "./rulerLayout";

/** The ruler under the stages, laid out over a width. */
export function useRuler(width: number): RulerLayout | null {
  const student = useTimeline("student");
  const reference = useTimeline("reference");
  const window = useBench((bench) => (bench.sides.student ?? bench.sides.reference)?.clip.window);
  return useMemo(
    () => (window ? layRuler(student, reference, window, width) : null),
    [student, reference, window, width],
  );
}

function useTimeline(side: Side): Timeline | null {
  const clip = useBench((bench) => bench.sides[side]?.clip);
  const on = useBench((bench) => {
    const state = bench.sides[side];
    return state && onOf(state);
  });
  return useMemo(() => (clip && on ? timelineFrom(clip, on) : null), [clip, on]);
}
