import { type BenchState, type Done, onOf, openProposals, type Side } from "../benchState";
import { applied, type Edit, inverse, type Part, post } from "../edits";
import { type Get, type Put, patch } from "./slice";

type Editing = Pick<
  BenchState,
  "done" | "undone" | "edit" | "recallDone" | "acceptPegs" | "undo" | "redo" | "setLook"
>;

/** What a hand changes on a clip: done at once, sent to the server, and taken back as deep as it goes. */
export function editing(set: Put, get: Get): Editing {
  let lastGesture: string | undefined;

  const edit = (side: Side, change: Edit, part: Part) => {
    const now = get().sides[side];
    if (!now) return;
    patch(set, side, { views: { ...now.views, [now.clip.id]: applied(onOf(now), change) } });
    post(now.clip.id, change, part);
  };

  return {
    done: [],
    undone: [],

    edit: (side, change, gesture) => {
      const now = get().sides[side];
      if (!now) return;
      const continues = gesture !== undefined && gesture === lastGesture;
      lastGesture = gesture;
      const last = continues ? get().done.at(-1) : undefined;
      // A drag is one step back however many places it passed.
      const step: Done = last
        ? { ...last, redo: change }
        : {
            side,
            clipId: now.clip.id,
            gesture: crypto.randomUUID(),
            undo: inverse(onOf(now), change),
            redo: change,
          };
      set(({ done }) => ({ done: [...(last ? done.slice(0, -1) : done), step], undone: [] }));
      edit(side, change, { gesture: step.gesture, way: "do" });
    },

    recallDone: (earlier) =>
      set(({ done, undone }) => {
        const known = new Set([...done, ...undone].map((each) => each.gesture));
        return { done: [...earlier.filter((each) => !known.has(each.gesture)), ...done] };
      }),

    acceptPegs: () => {
      const { active, sides, edit: put } = get();
      const now = sides[active];
      for (const { name, frame } of now ? openProposals(now) : [])
        put(active, { kind: "peg", name, frame, between: false, accepted: true });
    },

    undo: () => {
      const last = get().done.at(-1);
      if (!last) return;
      lastGesture = undefined;
      set(({ done, undone }) => ({ done: done.slice(0, -1), undone: [...undone, last] }));
      get().show(last.side, last.clipId);
      edit(last.side, last.undo, { gesture: last.gesture, way: "undo" });
    },

    redo: () => {
      const last = get().undone.at(-1);
      if (!last) return;
      lastGesture = undefined;
      set(({ done, undone }) => ({ undone: undone.slice(0, -1), done: [...done, last] }));
      get().show(last.side, last.clipId);
      edit(last.side, last.redo, { gesture: last.gesture, way: "redo" });
    },

    setLook: (side, look) =>
      set(({ looks, alike }) => ({
        looks: alike ? { student: look, reference: look } : { ...looks, [side]: look },
      })),
  };
}
