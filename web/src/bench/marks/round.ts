import type { Schemas } from "../../api/client";
import type { Checkpoint } from "../../words";
import { markAt, onOf, pegsOf, type SideState } from "../benchState";

export type Wanted = Schemas["WantedOut"];
export type Group = Wanted["group"];

/** All marks that readings need, and the groups of them that are wanted now. */
export interface Plan {
  wanted: Wanted[];
  groups: Group[];
}

/** A place of the round: a mark on the frame of a checkpoint. */
export interface Place {
  at: Checkpoint;
  frame: number;
  name: string;
  done: boolean; // placed, or said to be hidden
}

export const GROUPS: Group[] = ["pelvis", "knees", "feet", "trunk", "club"];

export const GROUP_WORDS: Record<Group, string> = {
  pelvis: "Pelvis",
  knees: "Knees",
  feet: "Feet",
  trunk: "Trunk",
  club: "Club",
};

export function isHidden(side: SideState, name: string, frame: number): boolean {
  return onOf(side).hidden.some((each) => each.name === name && each.frame === frame);
}

/** The marks of a view, of one group or of all. */
export function marksOf(side: SideState, plan: Plan, group?: Group): Wanted[] {
  return plan.wanted.filter(
    (mark) => mark.view === side.clip.view && (group === undefined || mark.group === group),
  );
}

/** Whether a mark can be put on a frame: some belong to certain checkpoints alone. */
export function belongs(side: SideState, mark: Wanted, frame: number): boolean {
  if (mark.at.length === 9) return true;
  const pegs = pegsOf(onOf(side));
  return mark.at.some((at) => pegs[at] === frame);
}

/** Every place of the round on a clip, in the order of the swing. */
export function roundOf(side: SideState, plan: Plan): Place[] {
  const pegs = pegsOf(onOf(side));
  const wanted = marksOf(side, plan).filter((mark) => plan.groups.includes(mark.group));
  const checkpoints = [...new Set(wanted.flatMap((mark) => mark.at))].filter((at) => pegs[at] !== undefined);
  checkpoints.sort((a, b) => (pegs[a] ?? 0) - (pegs[b] ?? 0));
  return checkpoints.flatMap((at) => {
    // Two groups may want the same mark.
    const names = new Set(wanted.filter((mark) => mark.at.includes(at)).map(({ name }) => name));
    return [...names].map((name) => {
      const frame = pegs[at] ?? 0;
      const done = markAt(side, name, frame) !== undefined || isHidden(side, name, frame);
      return { at, frame, name, done };
    });
  });
}

/** The wanted marks of one frame that nobody has placed or called hidden. */
export function openAt(round: Place[], frame: number): string[] {
  return round.filter((place) => place.frame === frame && !place.done).map((place) => place.name);
}

export const placeKey = (place: { name: string; frame: number }) => `${place.name} ${place.frame}`;

/** The next open place after one, round the corner if need be; skipped ones wait until the end. */
export function nextPlace(
  side: SideState,
  plan: Plan,
  skipped: string[],
  after?: { name: string; frame: number },
): Place | undefined {
  const places = roundOf(side, plan);
  const from = after ? places.findIndex((place) => placeKey(place) === placeKey(after)) + 1 : 0;
  const open = [...places.slice(from), ...places.slice(0, from)].filter((place) => !place.done);
  return open.find((place) => !skipped.includes(placeKey(place)));
}
