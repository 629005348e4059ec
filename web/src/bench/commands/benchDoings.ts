import { CHALK_TOOLS } from "../../drawn/chalk";
import { CHECKPOINTS } from "../../words";
import {
  type BenchState,
  chalkIn,
  chalkTool,
  type DrawerPart,
  frameOf,
  KNOWN_LENGTH,
  MAT,
  markAt,
  onOf,
  openProposals,
  PLAYER,
  PLUMB,
  rivalOn,
  type SideState,
} from "../benchState";
import type { Bench } from "../benchStore";
import { belongs, marksOf } from "../marks/round";
import { putPeg } from "../rule/putPeg";
import type { Station } from "../stations/stations";
import { isRecording, pauseTake, sayAgain } from "../walk/recording";
import type { CommandId } from "./table";

/** How a command was called: which place of its list, and whether its key is held down and sends again. */
export interface Call {
  place?: number;
  again?: boolean;
}

/** Does a command; false where it cannot be done now, or words that say why. */
// biome-ignore lint/suspicious/noConfusingVoidType: most just do it
export type Doing = (call: Call, bench: Bench) => boolean | string | void;

const PULL_START = 1 / 16;
const PULL_GROWS = 1.08; // with each repeat of the held key
const PULL_MOST = 1;
export const DRAWER: DrawerPart[] = ["curves", "relay", "floor", "pressure"];

/** Does something with the state as it is. */
const on =
  (act: (state: BenchState) => ReturnType<Doing>): Doing =>
  (_, bench) =>
    act(bench.getState());
/** The same with the stage that is worked on. */
const onStage = (act: (side: SideState, state: BenchState) => ReturnType<Doing>): Doing =>
  on((state) => {
    const side = state.sides[state.active];
    return side ? act(side, state) : false;
  });
/** The same where a student and a reference stand side by side. */
const onBoth = (act: (state: BenchState) => ReturnType<Doing>): Doing =>
  on((state) => (state.sides.student && state.sides.reference ? act(state) : false));

/** The same where something stands beside to be compared with. */
const onRivals = (act: (state: BenchState) => ReturnType<Doing>): Doing =>
  onBoth((state) => (rivalOn(state, "reference") ? act(state) : false));

const to = (station: Station) => on((state) => state.goToStation(station));
const pull =
  (way: 1 | -1): Doing =>
  ({ again }, bench) => {
    const { playing, set } = bench.getState();
    const pace = again && playing !== null ? Math.abs(playing) * PULL_GROWS : PULL_START;
    set({ playing: way * Math.min(pace, PULL_MOST) });
  };

/** What the bench does by itself, whatever is on the screen. */
export const ON_BENCH: Partial<Record<CommandId, Doing>> = {
  mark: to("mark"),
  read: to("read"),
  judge: to("judge"),
  tell: to("tell"),

  step_back: on((state) => state.step(-1)),
  step_on: on((state) => state.step(1)),
  ten_back: on((state) => state.step(-10)),
  ten_on: on((state) => state.step(10)),
  peg_before: on((state) => state.toPeg(-1)),
  peg_after: on((state) => state.toPeg(1)),
  run: on((state) => state.play()),
  slower: on((state) => state.pace(-1)),
  faster: on((state) => state.pace(1)),
  loop: on(({ looping, set }) => set({ looping: !looping, playing: null })),
  pull_back: pull(-1),
  pull_on: pull(1),

  other_stage: onBoth(({ active, set }) =>
    set({ active: active === "student" ? "reference" : "student", tool: null, selected: null }),
  ),
  other_view: on((state) => state.turnView()),
  alone: on(({ solo, set }) => set({ solo: !solo })),
  link: onBoth(({ linked, set }) => set({ linked: !linked })),
  overlay: onRivals(({ overlay, set }) => set({ overlay: overlay ? 0 : 0.5 })),
  flicker: onRivals(({ set }) => set({ flicker: true })),
  alike: on(({ alike, set }) => set({ alike: !alike })),
  uncover: on(({ set }) => set({ uncovered: true })),

  peg: ({ place = 0 }, bench) => {
    const name = CHECKPOINTS[place]?.[0];
    if (name) putPeg(bench, name);
  },
  peg_address: (_, bench) => putPeg(bench, "address"),
  peg_top: (_, bench) => putPeg(bench, "top"),
  peg_impact: (_, bench) => {
    const { sides, active, edit } = bench.getState();
    const side = sides[active];
    const frame = frameOf(bench.getState());
    const here = side && onOf(side).pegs.find((peg) => peg.name === "impact" && peg.frame === frame);
    if (here) edit(active, { ...here, kind: "peg", between: !here.between, accepted: false });
    else putPeg(bench, "impact");
  },
  peg_proposed: onStage((side, { acceptPegs }) => (openProposals(side).length ? acceptPegs() : false)),

  take_mark: ({ place = 0 }, bench) => {
    const state = bench.getState();
    const side = state.sides[state.active];
    const mark = side && marksOf(side, state, state.group)[place];
    if (!mark) return "This group has no mark of that number.";
    if (!belongs(side, mark, frameOf(state)))
      return "That mark is asked for at certain checkpoints: go to one, or peg it.";
    state.set({ tool: mark.name, selected: null });
  },
  round: onStage((side, state) => {
    if (onOf(side).pegs.length === 0) return "The round goes from peg to peg: set a peg first.";
    if (state.round) state.skip();
    else state.startRound();
  }),
  hide: on(({ tool, selected, hide }) => (tool || selected ? hide() : false)),
  hand_test: on(({ handTest, goToStation, set }) => {
    goToStation("mark");
    set({ handTest: !handTest, playing: null });
  }),
  known_length: onStage((side, { set }) => {
    const unsaid = onOf(side).calibration?.length_m === null;
    set(unsaid ? { tool: null, selected: KNOWN_LENGTH } : { tool: KNOWN_LENGTH, selected: null });
  }),
  plumb: on(({ set }) => set({ tool: PLUMB, selected: null })),
  show_player: on(({ set }) => set({ tool: PLAYER, selected: null })),
  mat: onStage((side, { set }) =>
    set(onOf(side).mat ? { tool: null, selected: MAT } : { tool: MAT, selected: null }),
  ),
  remove: onStage((side, state) => {
    const { selected, active, edit, hide, set } = state;
    const frame = frameOf(state);
    if (!selected) return false;
    const facts = onOf(side).facts;
    if (selected === MAT) edit(active, { kind: "mat", value: null });
    else if (selected === KNOWN_LENGTH) edit(active, { kind: "calibration", value: null });
    else if (selected === PLUMB && facts) edit(active, { kind: "facts", value: { ...facts, plumb: null } });
    else if (markAt(side, selected, frame))
      edit(active, { kind: "mark", name: selected, frame, place: null });
    else hide(); // a followed one: it is not to be seen here
    set({ selected: null });
  }),

  drawer: on(({ drawer, set }) => set({ drawer: drawer ? null : "curves" })),
  drawer_part: ({ place = 0 }, bench) => bench.getState().set({ drawer: DRAWER[place] ?? null }),

  pause_walk: on(() => (isRecording() ? pauseTake() : false)),
  say_again: on(() => (isRecording() ? sayAgain() : false)),
  chalk: on(({ tool, set }) => {
    const next =
      CHALK_TOOLS[(CHALK_TOOLS.findIndex((each) => tool === chalkTool(each)) + 1) % CHALK_TOOLS.length];
    if (next) set({ tool: chalkTool(next), selected: null });
  }),
  wipe: on(({ chalk, set }) => (chalk.length ? set({ chalk: [] }) : false)),

  undo: on(({ done, undo, tool, chalk, set }) => {
    if (chalkIn(tool) && chalk.length) return set({ chalk: chalk.slice(0, -1) });
    return done.length ? undo() : "Nothing is left to undo.";
  }),
  redo: on(({ undone, redo }) => (undone.length ? redo() : "Nothing was undone.")),
  put_down: on(({ set }) =>
    set({ tool: null, selected: null, round: false, led: false, notice: null, playing: null }),
  ),
};
