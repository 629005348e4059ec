import type { ChalkTool } from "../../../drawn/chalk";
import type { Point } from "../../../drawn/stageView";
import type { Tool } from "../../benchState";

/** A mark as it lies on the stage. */
export interface Spot {
  name: string;
  at: Point; // stage px
  place: Point; // picture px
  grouped: boolean; // of the group that lies ready
}

/** What a hand finds on a stage. */
export interface Scene {
  tool: Tool;
  selected: string | null;
  spots: Spot[];
  corners: Point[]; // of the mat, stage px
  toPicture: (at: Point) => Point; // picture px
  toRange: (at: Point) => Point; // picture px of the frame in which the camera began, for what stands on the range
}

/** What a hand does to the bench. */
export type Deed =
  | { do: "choose"; name: string | null }
  | { do: "put"; name: string; place: Point }
  | { do: "next" } // the mark that is asked for after this one
  | { do: "fan"; at: Point; names: string[] } // several lie here: which is meant?
  | { do: "corner"; index: number; place: Point }
  | { do: "add corner"; place: Point }
  | { do: "stretch"; from: Point } // a line that is being drawn
  | { do: "line"; a: Point; b: Point }
  | { do: "show player"; place: Point }
  | { do: "shift"; by: Point } // the picture, from where it lay when the hand came down
  | { do: "chalk"; draws: ChalkTool; points: Point[]; ended: boolean } // picture px
  | { do: "write"; at: Point; place: Point } // words in chalk: they are typed there
  | { do: "say"; words: string };

/** A hand that is down on the stage with something in it. */
export interface Hand {
  move: (at: Point) => Deed[];
  up: (at: Point) => Deed[];
}

/** What follows from a press: what is done at once, and what the hand does from then on. */
export interface Grip {
  deeds: Deed[];
  hand: Hand | null;
}
