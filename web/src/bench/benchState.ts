import type { Schemas } from "../api/client";
import { CHALK_TOOLS, type ChalkTool, type Stroke } from "../drawn/chalk";
import type { Look } from "../drawn/stageView";
import type { ClipMarks, Edit } from "./edits";
import type { ProposedMark } from "./marks/ProposedMarks";
import type { Group, Wanted } from "./marks/round";
import type { Floor, Kinds, Reading } from "./readings/reading";
import type { Pegs, Timeline } from "./rule/pegLink";
import type { Station } from "./stations/stations";

export type Side = "student" | "reference";
export type BenchSwing = Schemas["BenchSwing"];
export type BenchClip = Schemas["BenchClip"];
/** The known length, as a tool and as a thing chosen. */
export const KNOWN_LENGTH = "known_length";
/** The corners of the mat, as a tool and as a thing chosen. */
export const MAT = "mat";
/** An upright edge in the picture, as a tool and as a thing chosen. */
export const PLUMB = "plumb";
/** Who plays, as a tool: a click shows them. */
export const PLAYER = "player";
const GROUND: unknown[] = [KNOWN_LENGTH, MAT, PLUMB, PLAYER];
const CHALK = "chalk ";
/** Chalk in hand, as a tool: what it draws. */
export const chalkTool = (draws: ChalkTool) => `${CHALK}${draws}`;
export const chalkIn = (tool: Tool): ChalkTool | null =>
  CHALK_TOOLS.find((each) => tool === chalkTool(each)) ?? null;
/** Whether a tool lays something in the range or draws on the picture, and puts no mark of the player. */
export const isGround = (tool: string) => GROUND.includes(tool) || chalkIn(tool) !== null;
export type Tool = string | "known_length" | null;

/** One stage: a swing's clip and what is on it. */
export interface SideState {
  swing: BenchSwing;
  clip: BenchClip;
  views: Record<string, ClipMarks>; // what is on each of the swing's clips
  state: string; // names all that follows from the marks: the server tells what differs from it
  readings: Reading[];
  next: Schemas["NextOut"][];
  floor: Floor;
  pressure: Schemas["PressureOut"] | null; // what a pressure plate felt, in short
  pairing: Schemas["PairingOut"] | null; // whether its two views are one swing
  kindSeen: Schemas["KindSeenOut"]; // what its marks tell of club and length
  behind: boolean; // somebody else has changed something: the swing is to be fetched anew
  turnedFrom?: { clipId: string; frame: number; to: number }; // the view before, its frame, and this one's then
  mirrored: boolean;
}

/** Where in its clip a stage stands, and which way it came there. It changes with every step, the rest does not. */
export interface Stand {
  frame: number;
  direction: 1 | -1;
}

export interface Done {
  side: Side;
  clipId: string;
  gesture: string;
  undo: Edit;
  redo: Edit;
  together?: string; // steps of the same are taken back at once
}

export type Settable =
  | "active"
  | "linked"
  | "tool"
  | "selected"
  | "notice"
  | "playing"
  | "rate"
  | "looping"
  | "overlay"
  | "flicker"
  | "solo"
  | "alike"
  | "wanted"
  | "group"
  | "groups"
  | "round"
  | "led"
  | "kept"
  | "kinds"
  | "handTest"
  | "pinned"
  | "finding"
  | "focus"
  | "drawer"
  | "curve"
  | "tabled"
  | "uncovered"
  | "lying"
  | "chalk";

/** What the drawer under the stages shows. */
export type DrawerPart = "curves" | "relay" | "floor" | "pressure";

export interface BenchState {
  station: Station;
  sides: Partial<Record<Side, SideState>>;
  stands: Record<Side, Stand>;
  active: Side;
  linked: boolean;
  tool: Tool;
  selected: string | null;
  notice: string | null;
  playing: number | null; // share of real time, backward negative; null while it stands
  rate: number; // at which the play button plays
  looping: boolean;
  overlay: number; // how much of the reference is seen over the student: 0 none, 1 nothing else
  flicker: boolean; // for as long as its key is held, the reference stands in the student's place
  solo: boolean; // the active stage alone, as large as the bench
  looks: Partial<Record<Side, Look | null>>; // how each stage is looked at; null: cropped to the player
  alike: boolean; // both stages are zoomed and shifted together
  kinds: Kinds; // of readings, as the server says
  wanted: Wanted[]; // all marks that readings need, as the server says
  group: Group; // the one whose marks lie ready under the stage
  groups: Group[]; // those whose marks are wanted
  round: boolean; // the bench leads from mark to mark
  led: boolean; // the bench leads to what is worth looking at most
  skipped: string[]; // places of the round that wait
  kept: string[]; // doubts that were looked at and kept
  pinned: string[]; // gauges that stay on the stages
  finding: string | null; // the fault that is looked into at Judge
  focus: { reading: string; at: string } | null; // the reading that is looked into: its gauge is shown too
  drawer: DrawerPart | null; // what of the swing as a whole lies open over the rule
  tabled: boolean; // it is shown in figures, not drawn
  curve: string; // the reading whose curve is shown while none is looked into
  uncovered: boolean; // for as long as its key is held, the marks are seen where they lie hidden
  lying: Partial<Record<Side, ProposedMark[]>>; // proposed marks on each stage that is seen
  chalk: Stroke[]; // what is drawn on frames, of any clip
  handTest: boolean; // clicks are counted for the hand's steadiness, not put down
  undone: Done[];
  done: Done[];

  goToStation: (station: Station) => void;
  /** Say what somebody has to know, until it is understood. */
  say: (notice: string) => void;
  open: (side: Side, swing: BenchSwing, mirrored: boolean) => void;
  close: (side: Side) => void;
  refresh: (side: Side, swing: BenchSwing) => void;
  /** Take in what the server says follows from a change that it was sent beside the edits. */
  heard: (side: Side, answer: Schemas["EditAnswer"]) => void;
  show: (side: Side, clipId: string) => void;
  /** Show the active stage's swing, and the other stage's if it can be, from the next side; false where there is none. */
  turnView: () => boolean;
  goTo: (side: Side, frame: number) => void;
  step: (frames: number) => void;
  /** To the nearest peg that way; false where there is none. */
  toPeg: (way: 1 | -1) => boolean;
  edit: (side: Side, edit: Edit, gesture?: string, together?: string) => void;
  recallDone: (earlier: Done[]) => void;
  acceptPegs: () => void;
  startRound: () => void;
  advance: () => void;
  skip: () => void;
  hide: () => void;
  undo: () => void;
  redo: () => void;
  setLook: (side: Side, look: Look | null) => void;
  set: (change: Partial<Pick<BenchState, Settable>>) => void;
  play: () => void;
  pace: (way: 1 | -1) => void;
  /** Take in what the server answers to edits of a clip. */
  taken: (clipId: string, answer: Schemas["EditAnswer"], sent: number) => void;
  leave: () => void;
}

export const OTHER: Record<Side, Side> = { student: "reference", reference: "student" };

export function pegsOf(on: ClipMarks): Pegs {
  return Object.fromEntries(on.pegs.map((peg) => [peg.name, peg.frame]));
}

/** Whether both stages show one swing, from two sides. */
export const paired = ({ sides }: Pick<BenchState, "sides">): boolean =>
  sides.student !== undefined && sides.student.swing.id === sides.reference?.swing.id;

/** What stands on a stage to be compared with: a swing's own other view is not. */
export const rivalOn = (state: Pick<BenchState, "sides">, side: Side): SideState | undefined =>
  side === "reference" && paired(state) ? undefined : state.sides[side];

/** The frame on which the stage that is worked on stands. */
export const frameOf = ({ stands, active }: BenchState): number => stands[active].frame;

/** The clips that a swing is measured on, in the order in which readings name them. */
export const measuredClips = (swing: BenchSwing): string[] =>
  swing.measured.clips.map(({ clip_id }) => clip_id);

/** A frame, or the nearest one that belongs to the swing. */
export function inWindow(frame: number, { clip }: SideState): number {
  return Math.min(Math.max(frame, clip.window.first), clip.window.last);
}

export function timelineFrom(clip: BenchClip, on: ClipMarks): Timeline {
  const pegs = pegsOf(on);
  const proposed = Object.fromEntries(clip.proposals.pegs.map((peg) => [peg.name, peg.frame]));
  const impactBetween = on.pegs.some((peg) => peg.between);
  return { times: clip.frame_times_s, pegs, links: { ...proposed, ...pegs }, impactBetween };
}

export function timelineOf(side: SideState): Timeline {
  return timelineFrom(side.clip, onOf(side));
}

export function nothingOn(clipId: string): ClipMarks {
  return {
    clip_id: clipId,
    version: 0,
    pegs: [],
    marks: [],
    hidden: [],
    facts: null,
    calibration: null,
    mat: null,
    camera: null,
    camera_trouble: "",
    player: null,
    gauges: [],
  };
}

/** What is on a clip of a stage's swing, shown or not. */
export function viewOf(side: SideState, clipId: string): ClipMarks {
  return side.views[clipId] ?? nothingOn(clipId);
}

/** What is on the clip that a stage shows. */
export function onOf(side: SideState): ClipMarks {
  return viewOf(side, side.clip.id);
}

export function markAt(side: SideState, name: string, frame: number) {
  return onOf(side).marks.find((mark) => mark.name === name && mark.frame === frame);
}

/** Proposed pegs of checkpoints that are not pegged yet. */
export function openProposals(side: SideState) {
  const pegs = pegsOf(onOf(side));
  return side.clip.proposals.pegs.filter((peg) => pegs[peg.name] === undefined);
}

/** The ready clips of a stage's swing that show it from another side. */
export function otherViews(side: SideState): BenchClip[] {
  return side.swing.clips.filter((clip) => clip.state === "ready" && clip.view !== side.clip.view);
}
