import type { Schemas } from "../../api/client";
import { shows } from "../../outbox";
import { clipLike } from "../../sides";
import {
  type BenchState,
  type BenchSwing,
  inWindow,
  measuredClips,
  nothingOn,
  OTHER,
  onOf,
  pegsOf,
  type Side,
  type SideState,
  viewOf,
} from "../benchState";
import { applied, type ClipMarks, tellOtherTabs, unpacked, unsentOn } from "../edits";
import { floorOf, gaugesOf, readingsOf, replaced } from "../readings/columns";
import type { Kinds } from "../readings/reading";
import type { Standing } from "../standing";
import { type Get, type Put, patch } from "./slice";

type Stages = Pick<BenchState, "sides" | "open" | "close" | "refresh" | "heard" | "taken" | "leave">;

/** Putting swings on the two stages, and keeping them as the server has them. */
export function stages(set: Put, get: Get, places: Standing["places"]): Stages {
  const stops: (() => void)[] = [];

  const take = (side: Side, clipId: string, answer: Schemas["EditAnswer"], sent: number) => {
    if (answer.met.length)
      get().say(`Another tab had changed ${answer.met.join(", ")}; the later change stands.`);
    const now = get().sides[side];
    if (!now || !answer.clips.some((each) => each.clip_id === clipId)) return;
    const views: Record<string, ClipMarks> = { ...now.views };
    // What differs from another state than the one that is held does not fit: all is fetched anew.
    const fits = answer.since === null || answer.since === now.state;
    const beside = answer.since !== null;
    let behind = now.behind || !fits;
    for (const found of answer.clips) {
      const mine = viewOf(now, found.clip_id);
      const { version, camera, camera_trouble, player } = found;
      const drawn = gaugesOf(found.gauges);
      const gauges = !fits ? mine.gauges : beside ? replaced(mine.gauges, drawn, ({ id }) => id) : drawn;
      if (version > mine.version + (found.clip_id === clipId ? sent : 0)) behind = true;
      const settled = unsentOn(found.clip_id).length === 0;
      views[found.clip_id] = settled
        ? { ...mine, ...found, gauges }
        : { ...mine, version, gauges, camera, camera_trouble, player };
    }
    const { next, pressure, pairing, kind_seen: kindSeen } = answer;
    const told = readingsOf(answer.readings, measuredClips(now.swing), get().kinds);
    const follows = fits && {
      state: answer.state,
      readings: beside ? replaced(now.readings, told, ({ reading }) => reading) : told,
      floor: answer.floor ? floorOf(answer.floor) : now.floor,
      next,
    };
    patch(set, side, { ...follows, pressure, pairing, kindSeen, behind, views });
    tellOtherTabs(now.swing.id);
  };

  const seenOf = (side: Side, clipId: string) => {
    const now = get().sides[side];
    return { seen: now ? viewOf(now, clipId).version : 0, since: now?.state ?? "" };
  };

  return {
    sides: {},

    open: (side, swing, mirrored) => {
      const stood = places[side];
      const ready = swing.clips.filter((each) => each.state === "ready");
      const before = ready.find((each) => each.id === stood?.clipId);
      const beside = get().sides[OTHER[side]];
      const own = beside?.swing.id === swing.id;
      const clip = own
        ? ready.find((each) => each.id !== beside.clip.id)
        : (before ?? (beside && clipLike(ready, beside.clip.view)) ?? ready[0]);
      if (!clip) return;
      const opened: SideState = { ...fetched(swing, get().kinds), clip, mirrored };
      const from = pegsOf(onOf(opened)).address ?? clip.window.first;
      const frame = inWindow(before && stood ? stood.frame : from, opened);
      set(({ sides, stands }) => ({
        sides: { ...sides, [side]: opened },
        stands: { ...stands, [side]: { frame, direction: 1 } },
      }));
      for (const each of swing.clips) stops.push(shows(each.id, () => seenOf(side, each.id)));
      const { sides, stands, goTo } = get();
      if (side === "reference" && sides.student) goTo("student", stands.student.frame);
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
      // Asked for before a mark that the server has since taken, and here only after it.
      if (swing.measured.clips.some((each) => each.version < viewOf(now, each.clip_id).version)) {
        patch(set, side, { behind: true });
        return;
      }
      const next = { ...now, ...fetched(swing, get().kinds), clip };
      set(({ sides, stands }) => ({
        sides: { ...sides, [side]: next },
        stands: { ...stands, [side]: { ...stands[side], frame: inWindow(stands[side].frame, next) } },
      }));
    },

    heard: (side, answer) => {
      const now = get().sides[side];
      if (now) take(side, now.clip.id, answer, 0);
    },

    taken: (clipId, answer, sent) => {
      for (const side of ["student", "reference"] as const)
        if (get().sides[side]?.swing.clips.some((clip) => clip.id === clipId))
          take(side, clipId, answer, sent);
    },

    leave: () => {
      for (const stop of stops.splice(0)) stop();
    },
  };
}

/** What is on each clip of a swing: as the server has it, with what it may not have yet. */
function fetched(swing: BenchSwing, kinds: Kinds) {
  const views: Record<string, ClipMarks> = {};
  for (const clip of swing.clips) {
    const found = swing.measured.clips.find((each) => each.clip_id === clip.id);
    const on = found ? unpacked(found) : nothingOn(clip.id);
    views[clip.id] = unsentOn(clip.id).reduce(applied, on);
  }
  const { state, next, pressure, pairing, kind_seen: kindSeen } = swing.measured;
  const readings = readingsOf(swing.measured.readings, measuredClips(swing), kinds);
  const floor = floorOf(swing.measured.floor);
  return { swing, views, state, readings, next, floor, pressure, pairing, kindSeen, behind: false };
}
