import { create } from "zustand";
import { createJSONStorage, persist } from "zustand/middleware";
import type { Cut } from "../walk/cut";

interface Mended {
  before: Cut[];
  undone: Cut[];
}

const NONE: Mended = { before: [], undone: [] };
const MOST = 50; // changes of one walk that can be undone

/** How each walk was cut before, for this tab: undo outlives a reload, and recording in between. */
const useAll = create<{ walks: Record<string, Mended> }>()(
  persist(() => ({ walks: {} }), {
    name: "tropometer.walks",
    storage: createJSONStorage(() => sessionStorage),
  }),
);

const set = (id: string, mended: Mended) =>
  useAll.setState(({ walks }) => ({ walks: { ...walks, [id]: mended } }));

/** The changes of one walk: noted when made, taken back, and made again; each gives the cut to put. */
export function useWalkUndo(id: string) {
  const { before, undone } = useAll(({ walks }) => walks[id] ?? NONE);
  return {
    canUndo: before.length > 0,
    canRedo: undone.length > 0,
    note: (cut: Cut) => set(id, { before: [...before, cut].slice(-MOST), undone: [] }),
    undo: (cut: Cut) => {
      set(id, { before: before.slice(0, -1), undone: [...undone, cut] });
      return before.at(-1);
    },
    redo: (cut: Cut) => {
      set(id, { before: [...before, cut], undone: undone.slice(0, -1) });
      return undone.at(-1);
    },
  };
}
