import { type BenchState, type Done, OTHER, onOf, openProposals, paired, type Side } from "../benchState";
import { applied, type Edit, inverse, type Part, post } from "../edits";
import { type Get, type Put, patch } from "./slice";
import { lastOf, stageOf } from "./steps";

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

  const again = (step: Done, change: Edit, way: Part["way"]) => {
    const shown = stageOf(get(), step.clipId);
    if (!shown) {
      get().say("What was done last was done on a swing that no longer stands here.");
      return;
    }
    get().show(shown, step.clipId);
    edit(shown, change, { gesture: step.gesture, way });
  };

  return {
    done: [],
    undone: [],

    edit: (side, change, gesture, together) => {
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
            together,
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
      const { active, sides, lying, edit: put } = get();
      const together = crypto.randomUUID();
      const other = OTHER[active];
      for (const side of paired(get()) && lying[other] ? [active, other] : [active]) {
        const now = sides[side];
        for (const { name, frame } of now ? openProposals(now) : [])
          put(side, { kind: "peg", name, frame, between: false, accepted: true }, undefined, together);
      }
    },

    undo: () => {
      const steps = lastOf(get().done);
      lastGesture = undefined;
      set(({ done, undone }) => ({
        done: done.slice(0, done.length - steps.length),
        undone: [...undone, ...steps],
      }));
      for (const step of steps) again(step, step.undo, "undo");
    },

    redo: () => {
      const steps = lastOf(get().undone);
      lastGesture = undefined;
      set(({ done, undone }) => ({
        undone: undone.slice(0, undone.length - steps.length),
        done: [...done, ...steps],
      }));
      for (const step of steps) again(step, step.redo, "redo");
    },

    setLook: (side, look) =>
      set(({ looks, alike }) => ({
        looks: alike ? { student: look, reference: look } : { ...looks, [side]: look },
      })),
  };
}
