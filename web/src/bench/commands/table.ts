import type { Station } from "../stations/stations";

/** The headings under which the keys are told. */
export const HEADINGS = {
  stations: "Stations",
  frames: "Frames and playing",
  stages: "Stages",
  pegs: "Pegs",
  marks: "Marks",
  ground: "What the picture is measured by",
  read: "Reading and telling",
  tell: "The walk",
  bench: "The bench",
} as const;

export interface Command {
  words: string;
  heading: keyof typeof HEADINGS;
  keys: readonly string[]; // by what the key prints, or by its place where the code is named
  shown: string; // the keys as they are told
  at?: readonly Station[]; // where it can be done; everywhere when nothing is said
  idle?: string; // why it cannot be done when no part of the bench offers it
  held?: boolean; // done for as long as the key is down
  places?: number; // of a list, each with its key: done from the keys alone
}

const MARK = ["mark"] as const;
const LOOKING = ["read", "judge", "tell"] as const;
const NINE = [1, 2, 3, 4, 5, 6, 7, 8, 9];

/** Signs that some layouts print with Shift or AltGr only. */
const sign = (...signs: string[]) => signs.map((each) => `[Shift]+[Alt]+[Control]+${each}`);

/** Everything that can be done on the bench by a key; help, palette and the buttons' hints tell it from here. */
export const COMMANDS = {
  mark: { words: "Mark: pegs, marks, ground", heading: "stations", keys: ["m"], shown: "M" },
  read: { words: "Read: the tapes", heading: "stations", keys: ["r"], shown: "R" },
  judge: { words: "Judge: what stands outside", heading: "stations", keys: ["j"], shown: "J" },
  tell: { words: "Tell: the lesson", heading: "stations", keys: ["t"], shown: "T" },

  step_back: {
    words: "One frame back",
    heading: "frames",
    keys: ["ArrowLeft", ","],
    shown: "←",
  },
  step_on: { words: "One frame on", heading: "frames", keys: ["ArrowRight", "."], shown: "→" },
  ten_back: { words: "Ten frames back", heading: "frames", keys: ["Shift+ArrowLeft"], shown: "Shift ←" },
  ten_on: { words: "Ten frames on", heading: "frames", keys: ["Shift+ArrowRight"], shown: "Shift →" },
  peg_before: {
    words: "To the peg before",
    heading: "frames",
    keys: ["PageUp", ...sign("[")],
    shown: "[, Page ↑",
    idle: "No peg comes before this frame.",
  },
  peg_after: {
    words: "To the peg after",
    heading: "frames",
    keys: ["PageDown", ...sign("]")],
    shown: "], Page ↓",
    idle: "No peg comes after this frame.",
  },
  run: { words: "Let the swing run, or stand", heading: "frames", keys: ["Space"], shown: "Space" },
  slower: { words: "Run slower", heading: "frames", keys: sign("-"), shown: "-" },
  faster: { words: "Run faster", heading: "frames", keys: sign("=", "+"), shown: "=" },
  loop: {
    words: "Run from the peg before to the peg after, again and again",
    heading: "frames",
    keys: ["o"],
    shown: "O",
  },
  pull_back: {
    words: "Pull the swing back, faster the longer it is held",
    heading: "frames",
    keys: ["z"],
    shown: "hold Z",
    held: true,
  },
  pull_on: {
    words: "Pull the swing on, faster the longer it is held",
    heading: "frames",
    keys: ["x"],
    shown: "hold X",
    held: true,
  },

  other_stage: {
    words: "Work on the other stage",
    heading: "stages",
    keys: ["s"],
    shown: "S",
    idle: "There is no other stage: choose a reference.",
  },
  other_view: {
    words: "See the swing from the other side",
    heading: "stages",
    keys: ["v"],
    shown: "V",
    idle: "This swing was filmed from one side only.",
  },
  alone: { words: "This stage alone, or both", heading: "stages", keys: ["a"], shown: "A" },
  link: {
    words: "Link the stages, or let each go alone",
    heading: "stages",
    keys: ["l"],
    shown: "L",
    idle: "There is no other stage: choose a reference.",
  },
  overlay: {
    words: "Lay the reference over the student, or take it away",
    heading: "stages",
    keys: ["b"],
    shown: "B",
    idle: "There is no reference to lay over.",
  },
  flicker: {
    words: "See the reference in the student's place",
    heading: "stages",
    keys: ["f"],
    shown: "hold F",
    idle: "There is no reference to see.",
    held: true,
  },
  larger: { words: "Larger", heading: "stages", keys: ["w"], shown: "W" },
  smaller: { words: "Smaller", heading: "stages", keys: ["q"], shown: "Q" },
  whole_picture: {
    words: "The whole picture, or the crop to the player",
    heading: "stages",
    keys: ["Digit0", "0"],
    shown: "0",
  },
  alike: {
    words: "Zoom both stages alike, or each alone",
    heading: "stages",
    keys: ["y"],
    shown: "Y",
  },
  gauges: { words: "Which gauges stay on the stages", heading: "stages", keys: sign(";"), shown: ";" },
  uncover: {
    words: "See the marks",
    heading: "stages",
    keys: ["u"],
    shown: "hold U",
    at: LOOKING,
    held: true,
  },

  peg: {
    words: "Peg this frame as one of the nine checkpoints, in the order of the swing",
    heading: "pegs",
    keys: NINE.map((n) => `Shift+Digit${n}`),
    shown: "Shift 1 … 9",
    at: MARK,
    places: 9,
  },
  peg_address: { words: "Peg address", heading: "pegs", keys: ["Shift+a"], shown: "Shift A", at: MARK },
  peg_top: { words: "Peg the top", heading: "pegs", keys: ["Shift+t"], shown: "Shift T", at: MARK },
  peg_impact: {
    words: "Peg impact; again: it lies between this frame and the next",
    heading: "pegs",
    keys: ["Shift+i"],
    shown: "Shift I",
    at: MARK,
  },
  peg_proposed: {
    words: "Set all proposed pegs",
    heading: "pegs",
    keys: ["g"],
    shown: "G",
    at: MARK,
    idle: "No pegs are proposed here.",
  },
  events: {
    words: "Events that are no checkpoints",
    heading: "pegs",
    keys: ["e"],
    shown: "E",
    at: MARK,
  },

  take_mark: {
    words: "Take a mark of the group in hand, then click its place",
    heading: "marks",
    keys: [...NINE.map((n) => `Digit${n}`), ...NINE.map((n) => `${n}`)],
    shown: "1 … 9",
    at: MARK,
    places: 9,
  },
  round: {
    words: "The round, mark by mark; again: this one later",
    heading: "marks",
    keys: ["n"],
    shown: "N",
    at: MARK,
  },
  next_look: {
    words: "Do what is worth most next, one after the other; again: stop",
    heading: "marks",
    keys: ["Shift+n"],
    shown: "Shift N",
    idle: "Nothing more is worth looking at.",
  },
  hide: {
    words: "The mark in hand is hidden on this frame",
    heading: "marks",
    keys: ["h"],
    shown: "H",
    at: MARK,
    idle: "Take a mark in hand first: then H says that it cannot be seen here.",
  },
  accept: {
    words: "Take the mark in hand as proposed, or all of this frame",
    heading: "marks",
    keys: ["Enter"],
    shown: "Enter",
    at: MARK,
    idle: "No marks are proposed on this frame.",
  },
  accept_all: {
    words: "Take all proposed marks of this frame",
    heading: "marks",
    keys: ["Shift+Enter"],
    shown: "Shift Enter",
    at: MARK,
    idle: "No marks are proposed on this frame.",
  },
  doubts: {
    words: "Look again at the mark that is doubted most",
    heading: "marks",
    keys: ["d"],
    shown: "D",
    at: MARK,
    idle: "Nothing is doubted.",
  },
  remove: {
    words: "Remove the chosen mark, length, upright edge or mat",
    heading: "marks",
    keys: ["Delete", "Backspace"],
    shown: "Delete",
    at: MARK,
    idle: "Choose first what is to be removed.",
  },

  known_length: { words: "A known length", heading: "ground", keys: ["k"], shown: "K", at: MARK },
  plumb: { words: "An upright edge", heading: "ground", keys: ["u"], shown: "U", at: MARK },
  show_player: {
    words: "Show who plays: click them",
    heading: "ground",
    keys: [],
    shown: "",
    at: MARK,
  },
  mat: {
    words: "The mat's four corners, and the camera",
    heading: "ground",
    keys: ["c"],
    shown: "C",
    at: MARK,
  },

  drawer: {
    words: "Open or close the drawer: curves, relay, floor, pressure",
    heading: "read",
    keys: ["d"],
    shown: "D",
    at: ["read"],
  },
  drawer_part: {
    words: "Curves, relay, from above, pressure",
    heading: "read",
    keys: ["Digit1", "Digit2", "Digit3", "Digit4", "1", "2", "3", "4"],
    shown: "1 … 4",
    at: ["read"],
    places: 4,
  },
  pick: {
    words: "Put this frame into the lesson",
    heading: "read",
    keys: ["p"],
    shown: "P",
    idle: "A reference swing gets no lesson.",
  },

  record_walk: {
    words: "Record the walk, or end it",
    heading: "tell",
    keys: ["Shift+r"],
    shown: "Shift R",
    idle: "A walk is recorded at Tell, once its lesson is begun.",
  },
  pause_walk: {
    words: "Pause the recording, or go on",
    heading: "tell",
    keys: ["Shift+p"],
    shown: "Shift P",
    idle: "Nothing is being recorded.",
  },
  say_again: {
    words: "Note that this is to be said again",
    heading: "tell",
    keys: ["Shift+g"],
    shown: "Shift G",
    idle: "Nothing is being recorded.",
  },
  chalk: {
    words: "Take chalk in hand; again: another kind of line",
    heading: "tell",
    keys: ["Shift+c"],
    shown: "Shift C",
  },
  wipe: {
    words: "Wipe all chalk away",
    heading: "tell",
    keys: ["Shift+w"],
    shown: "Shift W",
    idle: "Nothing is drawn in chalk.",
  },

  undo: { words: "Undo", heading: "bench", keys: ["$mod+z"], shown: "Ctrl Z" },
  redo: { words: "Do again", heading: "bench", keys: ["$mod+y", "$mod+Shift+z"], shown: "Ctrl Y" },
  put_down: {
    words: "Put the tool or the mark down, end the round",
    heading: "bench",
    keys: ["Escape"],
    shown: "Esc",
  },
  window: { words: "Which frames of the clip are the swing", heading: "bench", keys: ["i"], shown: "I" },
  starts_here: {
    words: "The swing starts at this frame of its clip",
    heading: "bench",
    keys: [...sign("{"), "Shift+Home"],
    shown: "{, Shift Home",
    idle: "The swing cannot start here.",
  },
  ends_here: {
    words: "The swing ends at this frame of its clip",
    heading: "bench",
    keys: [...sign("}"), "Shift+End"],
    shown: "}, Shift End",
    idle: "The swing cannot end here.",
  },
  palette: { words: "Find anything the bench can do", heading: "bench", keys: ["$mod+k"], shown: "Ctrl K" },
  export: { words: "Take away: record, readings, curves, this frame", heading: "bench", keys: [], shown: "" },
  hand_test: {
    words: "Test how steady your hand is: ten marks, twice, two minutes",
    heading: "bench",
    keys: [],
    shown: "",
  },
  help: { words: "These keys", heading: "bench", keys: sign("?"), shown: "?" },
} as const satisfies Record<string, Command>;

export type CommandId = keyof typeof COMMANDS;

export const COMMAND_IDS = Object.keys(COMMANDS) as CommandId[];

export const commandOf = (id: CommandId): Command => COMMANDS[id];

/** What a button says of itself when pointed at: what it does, and the key that does the same. */
export function hint(id: CommandId, words: string = COMMANDS[id].words): string {
  const { shown } = COMMANDS[id];
  return shown ? `${words} (${shown})` : words;
}
