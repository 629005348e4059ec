import { keep } from "../parts/keep";
import type { BenchState, Side } from "./benchState";
import type { Bench } from "./benchStore";

const TOOLS = [
  "active",
  "linked",
  "rate",
  "looping",
  "overlay",
  "solo",
  "looks",
  "alike",
  "group",
  "kept",
  "drawer",
  "curve",
  "tabled",
  "station",
] as const;

/** Where an instructor stood on a bench: it survives a reload of the tab. */
export interface Standing {
  places: Partial<Record<Side, { swingId: string; clipId: string; frame: number }>>;
  tools: Partial<Pick<BenchState, (typeof TOOLS)[number] | "groups" | "pinned">>;
}

const key = (swingId: string) => `tropometer.bench.${swingId}`;

export function recall(swingId: string): Standing {
  try {
    const stored = JSON.parse(sessionStorage.getItem(key(swingId)) ?? "");
    return { places: stored.places ?? {}, tools: { ...stored.tools, ...habits() } };
  } catch {
    return { places: {}, tools: habits() };
  }
}

const HABITS = "tropometer.habits";

/** What holds for every swing of this browser: which groups of marks are wanted, which gauges stay. */
function habits(): Standing["tools"] {
  try {
    const { groups, pinned } = JSON.parse(localStorage.getItem(HABITS) ?? "");
    return { ...(Array.isArray(groups) ? { groups } : {}), ...(Array.isArray(pinned) ? { pinned } : {}) };
  } catch {
    return {};
  }
}

/** Writes the standing down whenever it has changed and stood still for a moment. */
export function remember(swingId: string, bench: Bench): () => void {
  let timer: number | undefined;
  const write = () => {
    const state = bench.getState();
    const places: Standing["places"] = {};
    for (const side of ["student", "reference"] as const) {
      const now = state.sides[side];
      if (now) places[side] = { swingId: now.swing.id, clipId: now.clip.id, frame: state.stands[side].frame };
    }
    const tools = Object.fromEntries(TOOLS.map((tool) => [tool, state[tool]]));
    const standing: Standing = { places, tools };
    keep(sessionStorage, key(swingId), JSON.stringify(standing));
    keep(localStorage, HABITS, JSON.stringify({ groups: state.groups, pinned: state.pinned }));
  };
  const stop = bench.subscribe(() => {
    window.clearTimeout(timer);
    timer = window.setTimeout(write, 250);
  });
  window.addEventListener("pagehide", write);
  return () => {
    window.clearTimeout(timer);
    window.removeEventListener("pagehide", write);
    stop();
  };
}
