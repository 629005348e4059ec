import { createStore } from "zustand";
import type { BenchState } from "./benchState";
import type { Standing } from "./standing";
import { editing } from "./store/editing";
import { marking } from "./store/marking";
import { moving } from "./store/moving";
import { stages } from "./store/stages";

/** The state of one open bench: where it stands, what lies on it, and what can be done there. */
export function createBench(standing: Standing = { places: {}, tools: {} }) {
  return createStore<BenchState>()((set, get) => ({
    station: "mark",
    active: "student",
    lying: {},
    stands: { student: { frame: 0, direction: 1 }, reference: { frame: 0, direction: 1 } },
    linked: true,
    tool: null,
    selected: null,
    notice: null,
    playing: null,
    rate: 1 / 4,
    looping: false,
    overlay: 0,
    flicker: false,
    solo: false,
    looks: {},
    alike: true,
    kinds: {},
    wanted: [],
    group: "pelvis",
    groups: ["pelvis", "knees", "feet"],
    round: false,
    led: false,
    skipped: [],
    kept: [],
    handTest: false,
    chalk: [],
    pinned: ["trail_plumb", "trail_hip_gate", "lead_hip_gate", "seat_wall"],
    drawer: null,
    curve: "pelvis_sway",
    tabled: false,
    uncovered: false,
    finding: null,
    focus: null,
    ...standing.tools,

    // Only at Mark is something held in hand, and a hand led.
    goToStation: (station) =>
      set(({ led }) => ({
        station,
        led: led && station === "mark",
        tool: null,
        selected: null,
        round: false,
        handTest: false,
        uncovered: false,
      })),
    say: (notice) => set({ notice }),
    set: (change) => set(change),

    ...stages(set, get, standing.places),
    ...moving(set, get),
    ...editing(set, get),
    ...marking(set, get),
  }));
}

export type Bench = ReturnType<typeof createBench>;
