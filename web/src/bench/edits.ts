import type { Schemas } from "../api/client";
import type { Gauge } from "../drawn/gauge";
import { outbox } from "../outbox";
import { clipLane } from "../outbox/posts";
import type { PegName } from "../words";
import { gaugesOf, within } from "./readings/columns";

/** What is on a clip: as the server says it, with each mark by itself. */
export type ClipMarks = Omit<Schemas["ClipMeasured"], "gauges"> & {
  gauges: Gauge[];
  marks: Mark[];
  hidden: Schemas["HiddenOut"][];
};
export type Mark = Schemas["MarkOut"];
export type Calibration = Schemas["CalibrationValue"];
export type Mat = Schemas["MatValue"];
export type Facts = Schemas["FactsValue"];
export type Measured = Schemas["Measured"];

/** One change to what is put on a clip; `null` takes it away. */
export type Edit =
  | { kind: "peg"; name: PegName; frame: number | null; between: boolean; accepted: boolean }
  | { kind: "mark"; name: string; frame: number; place: Schemas["MarkPlace"] | null }
  | { kind: "calibration"; value: Calibration | null }
  | { kind: "hidden"; name: string; frame: number; hidden: boolean }
  | { kind: "mat"; value: Mat | null }
  | { kind: "facts"; value: Facts | null };

/** Which gesture an edit is a part of, and whether it does it, takes it back or does it again. */
export interface Part {
  gesture: string;
  way: "do" | "undo" | "redo";
}

export type SentEdit = Edit & Part & { id: string };

/** What an edit is about; a later edit of the same thing replaces one not yet sent. */
export function subject(edit: Edit): string {
  if (edit.kind === "peg") return `peg ${edit.name}`;
  if (edit.kind === "mark" || edit.kind === "hidden") return `mark ${edit.name} ${edit.frame}`;
  return edit.kind;
}

/** A clip's marks out of the columns in which they came. */
export function unpacked(stored: Schemas["ClipMarks"]): ClipMarks {
  const marks = stored.marks.flatMap(({ name, frame, x, y, sd_px, source, shared_px }) =>
    frame.map((at, i) => ({
      name,
      frame: at,
      x: x[i] ?? 0,
      y: y[i] ?? 0,
      sd_px: within(sd_px, i) ?? 1,
      source: within(source, i) ?? "hand",
      shared_px: within(shared_px, i) ?? 0,
    })),
  );
  return { ...stored, marks, gauges: gaugesOf(stored.gauges) };
}

/** The clip's marks with an edit done. Gauges stay until the server has measured anew. */
export function applied(on: ClipMarks, edit: Edit): ClipMarks {
  if (edit.kind === "peg") {
    const pegs = on.pegs.filter((peg) => peg.name !== edit.name);
    if (edit.frame !== null)
      pegs.push({ name: edit.name, frame: edit.frame, between: edit.between, accepted: edit.accepted });
    return { ...on, pegs: pegs.sort((a, b) => a.frame - b.frame) };
  }
  if (edit.kind === "mark" || edit.kind === "hidden") {
    const { name, frame } = edit;
    const other = (each: { name: string; frame: number }) => each.name !== name || each.frame !== frame;
    const [marks, hidden] = [on.marks.filter(other), on.hidden.filter(other)];
    if (edit.kind === "mark" && edit.place) marks.push({ ...edit.place, name, frame });
    if (edit.kind === "hidden" && edit.hidden) hidden.push({ name, frame });
    return { ...on, marks, hidden };
  }
  if (edit.kind === "mat") return { ...on, mat: edit.value };
  if (edit.kind === "facts") return { ...on, facts: edit.value };
  return { ...on, calibration: edit.value };
}

/** The edit that takes `edit` back, given what was there before it. */
export function inverse(before: ClipMarks, edit: Edit): Edit {
  if (edit.kind === "peg") {
    const was = before.pegs.find((peg) => peg.name === edit.name);
    return {
      ...edit,
      frame: was?.frame ?? null,
      between: was?.between ?? false,
      accepted: was?.accepted ?? false,
    };
  }
  if (edit.kind === "mark" || edit.kind === "hidden") {
    const { name, frame } = edit;
    const same = (each: { name: string; frame: number }) => each.name === name && each.frame === frame;
    if (before.hidden.some(same)) return { kind: "hidden", name, frame, hidden: true };
    const was = before.marks.find(same);
    const place = was ? placeOf(was) : null;
    return { kind: "mark", name, frame, place };
  }
  if (edit.kind === "mat") return { kind: "mat", value: before.mat };
  if (edit.kind === "facts") return { kind: "facts", value: before.facts };
  return { kind: "calibration", value: before.calibration };
}

/** Where a mark lies, without its name and frame. */
function placeOf({ x, y, sd_px, source, shared_px }: Mark): Schemas["MarkPlace"] {
  return { x, y, sd_px, source, shared_px };
}

const PACE_MS = 60;

/** Send an edit of a clip on its way. Of one drag only the last place goes. */
export function post(clipId: string, edit: Edit, part: Part): void {
  const id = crypto.randomUUID();
  const subjectOf = part.way === "do" ? `${part.gesture} ${subject(edit)}` : id;
  const sent: SentEdit = { ...edit, ...part, id };
  const what = WHAT[edit.kind](edit as never);
  outbox().add(
    { id, lane: clipLane(clipId), subject: subjectOf, what, post: { kind: "edit", clipId, edit: sent } },
    PACE_MS,
  );
}

/** Edits of a clip that the server may not have yet, oldest first. */
export function unsentOn(clipId: string): SentEdit[] {
  return outbox()
    .unsent(clipLane(clipId))
    .flatMap(({ post }) => (post.kind === "edit" ? [post.edit] : []));
}

type Of<Kind extends Edit["kind"]> = Extract<Edit, { kind: Kind }>;

/** What an edit is, in words. */
const WHAT: { [Kind in Edit["kind"]]: (edit: Of<Kind>) => string } = {
  peg: ({ name, frame }) => `the peg ${spoken(name)}${frame === null ? "" : ` on frame ${frame}`}`,
  mark: ({ name, frame }) => `the ${spoken(name)} on frame ${frame}`,
  hidden: ({ name, frame }) => `the hidden ${spoken(name)} on frame ${frame}`,
  calibration: () => "the known length",
  mat: () => "the mat",
  facts: () => "what is known of the camera",
};

const spoken = (name: string) => name.replaceAll("_", " ");

const CHANNEL = "tropometer.edits";

let channel: BroadcastChannel | undefined;

/** One for the tab: what it says reaches every tab but itself. */
const tabs = () => {
  channel ??= new BroadcastChannel(CHANNEL);
  return channel;
};

/** Tell other tabs of this browser that a swing has changed. */
export function tellOtherTabs(swingId: string): void {
  tabs().postMessage(swingId);
}

/** Hear of swings that other tabs have changed; returns how to stop. */
export function onOtherTabs(changed: (swingId: string) => void): () => void {
  const hear = (event: MessageEvent) => changed(String(event.data));
  tabs().addEventListener("message", hear);
  return () => tabs().removeEventListener("message", hear);
}
