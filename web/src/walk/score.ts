import type { Stroke } from "../drawn/chalk";
import type { Point } from "../drawn/stageView";

/** A walk through a swing is a voice and a score: what stood on the stages when, by the voice's own clock. */

export type Side = "student" | "reference";

/** How a stage shows its picture: the point in its middle, how much of the height it shows, and which way round. */
export interface Showing {
  cx: number; // picture px
  cy: number;
  high: number;
  wide: number; // and of the width
  mirrored: boolean;
}

export interface StageShown {
  clip: string;
  frame: number;
  showing: Showing;
}

export type DrawerShown = { part: "curves" | "relay" | "floor" | "pressure"; reading: string } | null;

/** The reading whose tape is looked into, and at which moment of the swing. */
export type TapeShown = { reading: string; at: string } | null;

/** All that is seen at one moment. */
export interface Scene {
  stages: Partial<Record<Side, StageShown>>;
  solo: Side | null; // the stage that stands alone
  gauges: string[];
  drawer: DrawerShown;
  tape: TapeShown;
  rate: number | null; // share of real time at which the swing runs; null while it stands
  pointer: { side: Side; x: number; y: number } | null; // picture px
  chalk: Stroke[];
}

export const NOTHING: Scene = {
  stages: {},
  solo: null,
  gauges: [],
  drawer: null,
  tape: null,
  rate: null,
  pointer: null,
  chalk: [],
};

/** Something that happened, ms on the voice's clock. */
export type ScoreEvent = { at: number } & (
  | { kind: "stage"; side: Side; shown: StageShown | null }
  | { kind: "frame"; side: Side; frame: number }
  | { kind: "showing"; side: Side; showing: Showing }
  | { kind: "solo"; side: Side | null }
  | { kind: "gauges"; ids: string[] }
  | { kind: "drawer"; drawer: DrawerShown }
  | { kind: "tape"; tape: TapeShown }
  | { kind: "rate"; rate: number | null }
  | { kind: "pointer"; pointer: Scene["pointer"] }
  | { kind: "chalk"; stroke: Stroke } // new, or one of that id changed
  | { kind: "chalk_on"; id: string; points: Point[] } // a free line goes on
  | { kind: "wipe"; id: string | null } // one, or all
  | { kind: "again" } // "say this again": nothing that is seen
);

export type Score = ScoreEvent[];

/** What is seen after something has happened. What names a stage or a stroke that is not there changes nothing. */
export function sceneAfter(scene: Scene, event: ScoreEvent): Scene {
  switch (event.kind) {
    case "stage": {
      const { [event.side]: _, ...others } = scene.stages;
      return { ...scene, stages: event.shown ? { ...others, [event.side]: event.shown } : others };
    }
    case "frame":
      return onStage(scene, event.side, { frame: event.frame });
    case "showing":
      return onStage(scene, event.side, { showing: event.showing });
    case "solo":
      return { ...scene, solo: event.side };
    case "gauges":
      return { ...scene, gauges: event.ids };
    case "drawer":
      return { ...scene, drawer: event.drawer };
    case "tape":
      return { ...scene, tape: event.tape };
    case "rate":
      return { ...scene, rate: event.rate };
    case "pointer":
      return { ...scene, pointer: event.pointer };
    case "chalk":
      return {
        ...scene,
        chalk: scene.chalk.some(({ id }) => id === event.stroke.id)
          ? scene.chalk.map((stroke) => (stroke.id === event.stroke.id ? event.stroke : stroke))
          : [...scene.chalk, event.stroke],
      };
    case "chalk_on":
      return {
        ...scene,
        chalk: scene.chalk.map((stroke) =>
          stroke.id === event.id ? { ...stroke, points: [...stroke.points, ...event.points] } : stroke,
        ),
      };
    case "wipe":
      return { ...scene, chalk: event.id === null ? [] : scene.chalk.filter(({ id }) => id !== event.id) };
    case "again":
      return scene;
  }
}

function onStage(scene: Scene, side: Side, change: Partial<StageShown>): Scene {
  const stage = scene.stages[side];
  return stage ? { ...scene, stages: { ...scene.stages, [side]: { ...stage, ...change } } } : scene;
}

/** The events that lead from one scene to another, all at one time. */
export function leadingTo(from: Scene, to: Scene, at: number): Score {
  const score: Score = [];
  for (const side of ["student", "reference"] as const) {
    const [had, has] = [from.stages[side], to.stages[side]];
    if (had?.clip !== has?.clip) score.push({ at, kind: "stage", side, shown: has ?? null });
    else if (had && has) {
      if (had.frame !== has.frame) score.push({ at, kind: "frame", side, frame: has.frame });
      if (!alike(had.showing, has.showing)) score.push({ at, kind: "showing", side, showing: has.showing });
    }
  }
  if (from.solo !== to.solo) score.push({ at, kind: "solo", side: to.solo });
  if (!alike(from.gauges, to.gauges)) score.push({ at, kind: "gauges", ids: to.gauges });
  if (!alike(from.drawer, to.drawer)) score.push({ at, kind: "drawer", drawer: to.drawer });
  if (!alike(from.tape, to.tape)) score.push({ at, kind: "tape", tape: to.tape });
  if (from.rate !== to.rate) score.push({ at, kind: "rate", rate: to.rate });
  if (!alike(from.pointer, to.pointer)) score.push({ at, kind: "pointer", pointer: to.pointer });
  for (const { id } of from.chalk)
    if (!to.chalk.some((stroke) => stroke.id === id)) score.push({ at, kind: "wipe", id });
  for (const stroke of to.chalk) {
    const had = from.chalk.find(({ id }) => id === stroke.id);
    if (had === stroke || (had && alike(had, stroke))) continue;
    const more = had ? wentOn(had, stroke) : null;
    score.push(more ? { at, kind: "chalk_on", id: stroke.id, points: more } : { at, kind: "chalk", stroke });
  }
  return score;
}

/** The points that a free line has gone on by, or null when something else of it has changed. */
function wentOn(had: Stroke, has: Stroke): Point[] | null {
  if (had.tool !== "free" || has.tool !== "free" || has.points.length <= had.points.length) return null;
  return had.points.every((point, i) => has.points[i] === point || alike(has.points[i], point))
    ? has.points.slice(had.points.length)
    : null;
}

const alike = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

const KEPT_EVERY = 400; // events: to go back means to go on from the last kept scene before

/** A score that can be asked what is seen at any moment. Events are in the order of their times. */
export class ScoreReader {
  readonly #kept: Scene[] = [NOTHING];

  constructor(readonly score: Score) {}

  /** What is seen at a time: all that had happened by then, that moment's own included. */
  at(ms: number): Scene {
    return this.#after(this.count(ms));
  }

  /** How many events had happened by a time. */
  count(ms: number): number {
    let [low, high] = [0, this.score.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.score[middle]?.at ?? 0) <= ms) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  #last: { count: number; scene: Scene } = { count: 0, scene: NOTHING };

  #after(count: number): Scene {
    if (this.#last.count === count) return this.#last.scene;
    const near =
      this.#last.count < count && count - this.#last.count < KEPT_EVERY
        ? this.#last
        : this.#keptBefore(count);
    let { scene } = near;
    for (const event of this.score.slice(near.count, count)) scene = sceneAfter(scene, event);
    this.#last = { count, scene };
    return scene;
  }

  #keptBefore(count: number): { count: number; scene: Scene } {
    const wanted = Math.floor(count / KEPT_EVERY);
    for (let kept = this.#kept.length; kept <= wanted; kept++) {
      let scene = this.#kept[kept - 1] ?? NOTHING;
      for (const event of this.score.slice((kept - 1) * KEPT_EVERY, kept * KEPT_EVERY))
        scene = sceneAfter(scene, event);
      this.#kept.push(scene);
    }
    return { count: wanted * KEPT_EVERY, scene: this.#kept[wanted] ?? NOTHING };
  }
}
