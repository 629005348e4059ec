import type { Bench, BenchState, Side } from "./benchStore";

/** Where an instructor stood on a bench: it survives a reload of the tab. */
export interface Standing {
  places: Partial<Record<Side, { clipId: string; frame: number }>>;
  tools: Partial<Pick<BenchState, "active" | "linked" | "rate" | "looping" | "overlay" | "solo">>;
}

const key = (swingId: string) => `tropometer.bench.${swingId}`;

export function recall(swingId: string): Standing {
  try {
    const stored = JSON.parse(sessionStorage.getItem(key(swingId)) ?? "");
    return { places: stored.places ?? {}, tools: stored.tools ?? {} };
  } catch {
    return { places: {}, tools: {} };
  }
}

/** Writes the standing down whenever it has changed and stood still for a moment. */
export function remember(swingId: string, bench: Bench): () => void {
  let timer: number | undefined;
  const keep = () => {
    const { sides, active, linked, rate, looping, overlay, solo } = bench.getState();
    const places: Standing["places"] = {};
    for (const side of ["student", "reference"] as const) {
      const now = sides[side];
      if (now) places[side] = { clipId: now.clip.id, frame: now.frame };
    }
    const standing: Standing = { places, tools: { active, linked, rate, looping, overlay, solo } };
    sessionStorage.setItem(key(swingId), JSON.stringify(standing));
  };
  const stop = bench.subscribe(() => {
    window.clearTimeout(timer);
    timer = window.setTimeout(keep, 250);
  });
  window.addEventListener("pagehide", keep);
  return () => {
    window.clearTimeout(timer);
    window.removeEventListener("pagehide", keep);
    stop();
  };
}
