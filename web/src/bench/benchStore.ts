import { createStore } from "zustand";
import type { Schemas } from "../api/client";
import { shows } from "../outbox";
import {
  type BenchState,
  type BenchSwing,
  type Done,
  inWindow,
  nothingOn,
  OTHER,
  openProposals,
  otherViews,
  pegsOf,
  type Side,
  type SideState,
  timelineOf,
  viewOf,
} from "./benchState";
import {
  applied,
  type ClipMarks,
  type Edit,
  inverse,
  type Part,
  post,
  tellOtherTabs,
  unpacked,
  unsentOn,
} from "./edits";
import { nextPlace, openAt, type Plan, placeKey } from "./marks/round";
import { linkedFrame } from "./rule/pegLink";
import { RATES } from "./rule/rates";
import type { Standing } from "./standing";

export function createBench(standing: Standing = { places: {}, tools: {} }) {
  const stops: (() => void)[] = [];
  let lastGesture: string | undefined;

  return createStore<BenchState>()((set, get) => {
    const patch = (side: Side, change: Partial<SideState>) =>
      set(({ sides }) => {
        const now = sides[side];
        return now ? { sides: { ...sides, [side]: { ...now, ...change } } } : {};
      });

    const take = (side: Side, clipId: string, answer: Schemas["EditAnswer"], sent: number) => {
      if (answer.met.length)
        set({ notice: `Another tab had changed ${answer.met.join(", ")}; the later change stands.` });
      const now = get().sides[side];
      if (!now || !answer.clips.some((each) => each.clip_id === clipId)) return;
      const views: Record<string, ClipMarks> = {};
      let behind = now.behind;
      for (const found of answer.clips) {
        const mine = viewOf(now, found.clip_id);
        const { version, gauges, camera, camera_trouble } = found;
        if (version > mine.version + (found.clip_id === clipId ? sent : 0)) behind = true;
        const settled = unsentOn(found.clip_id).length === 0;
        views[found.clip_id] = settled
          ? { ...mine, ...found }
          : { ...mine, version, gauges, camera, camera_trouble };
      }
      const { readings, next, floor, pressure, pairing } = answer;
      patch(side, {
        readings,
        next,
        floor,
        pressure,
        pairing,
        behind,
        views,
        on: views[now.clip.id] ?? now.on,
      });
      tellOtherTabs(now.swing.id);
    };

    const versionOf = (side: Side, clipId: string) => {
      const now = get().sides[side];
      return now ? viewOf(now, clipId).version : 0;
    };

    const clipOf = (swing: BenchSwing) => swing.clips.find((clip) => clip.state === "ready");

    /** What is on each clip of a swing: as the server has it, with what it may not have yet. */
    const fetched = (swing: BenchSwing) => {
      const views: Record<string, ClipMarks> = {};
      for (const each of swing.measured.clips)
        views[each.clip_id] = unsentOn(each.clip_id).reduce(applied, unpacked(each));
      const { readings, next, floor, pressure, pairing } = swing.measured;
      return { swing, views, readings, next, floor, pressure, pairing, behind: false };
    };

    const edit = (side: Side, change: Edit, part: Part) => {
      const now = get().sides[side];
      if (!now) return;
      patch(side, { on: applied(now.on, change) });
      post(now.clip.id, change, part);
    };

    const plan = (): Plan => ({ wanted: get().wanted, groups: get().groups });

    const goTo = (side: Side, wanted: number) => {
      const now = get().sides[side];
      if (!now) return;
      const frame = inWindow(Math.round(wanted), now);
      patch(side, { frame, direction: frame < now.frame ? -1 : 1 });
      const other = get().sides[OTHER[side]];
      if (get().linked && other) {
        const follow = inWindow(linkedFrame(frame, timelineOf(now), timelineOf(other)), other);
        patch(OTHER[side], { frame: follow, direction: follow < other.frame ? -1 : 1 });
      }
    };

    return {
      sides: {},
      active: "student",
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
      wanted: [],
      group: "pelvis",
      groups: ["pelvis", "knees", "feet"],
      round: false,
      skipped: [],
      kept: [],
      handTest: false,
      pinned: ["trail_plumb", "trail_hip_gate", "lead_hip_gate", "seat_wall"],
      whole: null,
      curve: "pelvis_sway",
      plate: false,
      focus: null,
      ...standing.tools,
      done: [],
      undone: [],

      open: (side, swing, mirrored) => {
        const stood = standing.places[side];
        const before = swing.clips.find((each) => each.id === stood?.clipId && each.state === "ready");
        const clip = before ?? clipOf(swing);
        if (!clip) return;
        const found = fetched(swing);
        const on = found.views[clip.id] ?? nothingOn(clip.id);
        const { first, last } = clip.window;
        const frame = before && stood ? Math.min(stood.frame, last) : (pegsOf(on).address ?? first);
        const opened: SideState = {
          ...found,
          clip,
          on,
          frame,
          direction: 1,
          mirrored,
        };
        set(({ sides }) => ({ sides: { ...sides, [side]: opened } }));
        for (const each of swing.clips) stops.push(shows(each.id, () => versionOf(side, each.id)));
        const student = get().sides.student;
        if (side === "reference" && student) goTo("student", student.frame);
      },

      close: (side) =>
        set(({ sides }) => {
          const { [side]: _, ...rest } = sides;
          return { sides: rest, active: OTHER[side] };
        }),

      refresh: (side, swing) => {
        const now = get().sides[side];
        if (!now || now.swing.id !== swing.id || unsentOn(now.clip.id).length) return;
        const clip = swing.clips.find((each) => each.id === now.clip.id);
        if (!clip) return;
        const found = fetched(swing);
        const on = found.views[clip.id] ?? nothingOn(clip.id);
        patch(side, { ...found, clip, on, frame: inWindow(now.frame, { ...now, clip }) });
      },

      heard: (side, answer) => {
        const now = get().sides[side];
        if (now) take(side, now.clip.id, answer, 0);
      },

      show: (side, clipId) => {
        const now = get().sides[side];
        const clip = now?.swing.clips.find((each) => each.id === clipId && each.state === "ready");
        if (!now || !clip || clip.id === now.clip.id) return;
        const views = { ...now.views, [now.clip.id]: now.on };
        const next = { ...now, views, clip, on: views[clip.id] ?? nothingOn(clip.id) };
        // To and fro ends where it began, whatever was pegged or proposed meanwhile.
        const before = now.turnedFrom;
        const back = before?.clipId === clip.id && before.to === now.frame;
        const linked = linkedFrame(now.frame, timelineOf(now), timelineOf(next));
        const frame = inWindow(back ? before.frame : linked, next);
        const turnedFrom = { clipId: now.clip.id, frame: now.frame, to: frame };
        set(({ sides }) => ({
          sides: { ...sides, [side]: { ...next, frame, turnedFrom } },
          tool: null,
          selected: null,
        }));
      },

      turnView: () => {
        const { sides, active, show } = get();
        const now = sides[active];
        const next = now && otherViews(now)[0];
        if (!next) return;
        for (const side of ["student", "reference"] as const) {
          const seen = sides[side]?.swing.clips.find(
            (clip) => clip.state === "ready" && clip.view === next.view,
          );
          if (seen) show(side, seen.id);
        }
      },

      goTo,

      step: (frames) => {
        const side = get().active;
        const now = get().sides[side];
        set({ playing: null });
        if (now) goTo(side, now.frame + frames);
      },

      play: () => {
        const { playing, rate, active, sides, looping } = get();
        const now = sides[active];
        if (!now) return;
        // From the end it starts over.
        const { first, last } = now.clip.window;
        if (playing === null && !looping && now.frame === last) goTo(active, first);
        set({ playing: playing === null ? rate : null });
      },

      pace: (way) => {
        const { rate, playing } = get();
        const next = RATES[Math.min(Math.max(RATES.indexOf(rate) - way, 0), RATES.length - 1)] ?? rate;
        set({ rate: next, playing: playing === null ? null : next });
      },

      toPeg: (way) => {
        const now = get().sides[get().active];
        if (!now) return;
        const frames = now.on.pegs.map((peg) => peg.frame).sort((a, b) => (a - b) * way);
        const next = frames.find((frame) => (frame - now.frame) * way > 0);
        if (next !== undefined) goTo(get().active, next);
      },

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
              undo: inverse(now.on, change),
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
          put(active, { kind: "peg", name, frame, between: false });
      },

      startRound: () => {
        set({ round: true, skipped: [], selected: null, playing: null });
        get().advance();
      },

      advance: () => {
        const { active, sides, round, tool, skipped } = get();
        const now = sides[active];
        if (!now) return;
        if (!round) {
          set({ tool: openAt(now, plan()).find((name) => name !== tool) ?? null });
          return;
        }
        const next = nextPlace(now, plan(), skipped, tool ? { name: tool, frame: now.frame } : undefined);
        if (!next) {
          set({ round: false, tool: null });
          return;
        }
        const group = get().wanted.find(
          (mark) =>
            mark.name === next.name &&
            mark.view === now.clip.view &&
            mark.at.includes(next.at) &&
            plan().groups.includes(mark.group),
        );
        set({ tool: next.name, selected: null, group: group?.group ?? get().group });
        if (next.frame !== now.frame) goTo(active, next.frame);
      },

      skip: () => {
        const { active, sides, tool, advance } = get();
        const now = sides[active];
        if (!now || !tool) return;
        const place = placeKey({ name: tool, frame: now.frame });
        set(({ skipped }) => ({ skipped: [...skipped, place] }));
        advance();
      },

      hide: () => {
        const { active, sides, tool, selected, edit: put, advance } = get();
        const now = sides[active];
        const name = tool ?? selected;
        if (!now || !name || !get().wanted.some((mark) => mark.name === name)) return;
        put(active, { kind: "hidden", name, frame: now.frame, hidden: true });
        set({ selected: null });
        if (tool) advance();
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

      set: (change) => set(change),
      taken: (clipId, answer, sent) => {
        for (const side of ["student", "reference"] as const)
          if (get().sides[side]?.swing.clips.some((clip) => clip.id === clipId))
            take(side, clipId, answer, sent);
      },
      leave: () => {
        for (const stop of stops.splice(0)) stop();
      },
    };
  });
}

export type Bench = ReturnType<typeof createBench>;
