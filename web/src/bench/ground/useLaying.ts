import { useState } from "react";
import type { Point } from "../../drawn/stageView";
import { useBench } from "../benchContext";
import { KNOWN_LENGTH, MAT, onOf, PLUMB, type Side, type SideState } from "../benchState";

export const MAT_CORNERS = 4;

export interface Laying {
  corners: Point[]; // of a mat that is being clicked
  clickCorner: (at: Point) => void;
  layLine: (a: Point, b: Point) => void;
}

/** Lays what the picture is measured by: the mat by its corners, a known length and a plumb line by two ends. */
export function useLaying(side: Side, state: SideState, tool: string | null): Laying {
  const edit = useBench((bench) => bench.edit);
  const set = useBench((bench) => bench.set);
  const [corners, setCorners] = useState<Point[]>([]); // of a mat that is being clicked
  if (tool !== MAT && corners.length > 0) setCorners([]); // put down before the fourth

  const clickCorner = ({ x, y }: Point) => {
    const all = [...corners, { x, y }];
    if (all.length < MAT_CORNERS) {
      setCorners(all);
      return;
    }
    setCorners([]);
    const was = onOf(state).mat ?? { along_m: null, across_m: null, place: "" };
    edit(side, { kind: "mat", value: { ...was, corners: all } });
    set({ tool: null, selected: MAT });
  };

  const layLength = (a: Point, b: Point) => {
    const was = onOf(state).calibration;
    const ends = { ax: a.x, ay: a.y, bx: b.x, by: b.y };
    const value = { length_m: was?.length_m ?? null, place: was?.place ?? "toe_line", ...ends };
    edit(side, { kind: "calibration", value });
    set({ tool: null, selected: KNOWN_LENGTH });
  };

  const layPlumb = (a: Point, b: Point) => {
    const plumb = { ax: a.x, ay: a.y, bx: b.x, by: b.y };
    const was = onOf(state).facts ?? { distance_m: null, height_m: null, squared: false };
    edit(side, { kind: "facts", value: { ...was, plumb } });
    set({ tool: null, selected: PLUMB });
  };

  return { corners, clickCorner, layLine: tool === PLUMB ? layPlumb : layLength };
}
