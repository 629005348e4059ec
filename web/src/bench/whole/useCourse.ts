import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { courseQuery } from "../../api/queries";
import { useBench } from "../benchContext";
import { measuredClips, rivalOn, type Side, timelineFrom } from "../benchState";
import { readingsOf } from "../readings/columns";
import type { Reading } from "../readings/reading";
import type { Timeline } from "../rule/pegLink";

export interface Course {
  course: Schemas["CourseOut"];
  times: Reading[];
  line: Timeline | null; // of the clip that the curve's frames are of
}

/** A stage's swing over time, measured anew after every edit that was stored. */
export function useCourse(
  side: Side,
  reading: string[],
  wanted = true,
): { found: Course | null; trouble: string } {
  const state = useBench((bench) => rivalOn(bench, side));
  const versions = state
    ? Object.values(state.views)
        .map((view) => `${view.clip_id} ${view.version}`)
        .sort()
        .join()
    : "";
  const mat = state?.pressure ? `${state.pressure.file_name} ${state.pressure.impact_s}` : "";
  const one = state?.pairing?.one_swing ?? "";
  const query = useQuery({
    ...courseQuery(state?.swing.id ?? "", `${versions} ${mat} ${one}`, reading),
    enabled: wanted && state !== undefined,
  });
  const course = query.data;
  const clip = state?.swing.clips.find((each) => each.id === course?.clip_id);
  const on = clip && state?.views[clip.id];
  const kinds = useBench((bench) => bench.kinds);
  const swing = state?.swing;
  const found = useMemo(
    () =>
      course && swing
        ? {
            course,
            times: readingsOf(course.times, measuredClips(swing), kinds),
            line: clip && on ? timelineFrom(clip, on) : null,
          }
        : null,
    [course, swing, kinds, clip, on],
  );
  return { found: state ? found : null, trouble: query.error?.message ?? "" };
}
