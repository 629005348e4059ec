import { api, type Schemas } from "../api/client";
import type { PegName } from "../words";

/** What is on a clip: as the server says it, with each mark by itself. */
export type ClipMarks = Schemas["ClipMeasured"] & { marks: Mark[]; hidden: Schemas["HiddenOut"][] };
export type Mark = Schemas["MarkOut"];
export type Calibration = Schemas["CalibrationValue"];
export type Mat = Schemas["MatValue"];
export type Facts = Schemas["FactsValue"];
export type Measured = Schemas["Measured"];

/** One change to what is put on a clip; `null` takes it away. */
export type Edit =
  | { kind: "peg"; name: PegName; frame: number | null; between: boolean }
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
  const marks = stored.marks.flatMap(({ name, frame, x, y, sd_px, source }) =>
    frame.map((at, i) => ({
      name,
      frame: at,
      x: x[i] ?? 0,
      y: y[i] ?? 0,
      sd_px: sd_px[i] ?? 1,
      source: source[i] ?? "hand",
    })),
  );
  return { ...stored, marks };
}

/** The clip's marks with an edit done. Gauges stay until the server has measured anew. */
export function applied(on: ClipMarks, edit: Edit): ClipMarks {
  if (edit.kind === "peg") {
    const pegs = on.pegs.filter((peg) => peg.name !== edit.name);
    if (edit.frame !== null) pegs.push({ name: edit.name, frame: edit.frame, between: edit.between });
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
    return { ...edit, frame: was?.frame ?? null, between: was?.between ?? false };
  }
  if (edit.kind === "mark" || edit.kind === "hidden") {
    const { name, frame } = edit;
    const same = (each: { name: string; frame: number }) => each.name === name && each.frame === frame;
    if (before.hidden.some(same)) return { kind: "hidden", name, frame, hidden: true };
    const was = before.marks.find(same);
    const place = was ? { x: was.x, y: was.y, sd_px: was.sd_px, source: was.source } : null;
    return { kind: "mark", name, frame, place };
  }
  if (edit.kind === "mat") return { kind: "mat", value: before.mat };
  if (edit.kind === "facts") return { kind: "facts", value: before.facts };
  return { kind: "calibration", value: before.calibration };
}

export type Saving = "saved" | "saving" | "offline" | "signed-out";

const RETRY_MS = [500, 1000, 2000, 4000];
const PACE_MS = 60;

/**
 * Edits of one clip on their way to the server. They are kept in the browser until the server has
 * them, so a dropped connection, a closed tab or a crashed server loses nothing; each has an id, so
 * that one sent twice is done once.
 */
export class EditQueue {
  #waiting: SentEdit[];
  #sending: SentEdit[] = [];
  #tries = 0;
  #timer: number | undefined;
  #stopped = false;
  #singly = false; // after a refusal: find the one edit the server will not take

  constructor(
    readonly clipId: string,
    readonly heard: {
      seen: () => number; // the version of the clip that is shown
      measured: (answer: Schemas["EditAnswer"], sent: number) => void;
      saving: (state: Saving) => void;
      refused: (message: string) => void;
    },
  ) {
    this.#waiting = this.#stored();
    if (this.#waiting.length) this.#store();
  }

  /** Edits the server may not have yet, oldest first. */
  get unsent(): SentEdit[] {
    return [...this.#sending, ...this.#waiting];
  }

  add(edit: Edit, part: Part): void {
    // Of one drag only the last place is worth sending; what other gestures did stays as it was done.
    const again = (other: SentEdit) => subject(other) === subject(edit) && other.gesture === part.gesture;
    if (part.way === "do") this.#waiting = this.#waiting.filter((other) => !again(other));
    this.#waiting.push({ ...edit, ...part, id: crypto.randomUUID() });
    this.#store();
    this.flush(PACE_MS);
  }

  flush(delay = 0): void {
    if (this.#timer !== undefined || this.#sending.length || !this.#waiting.length || this.#stopped) return;
    if (this.#tries === 0) this.heard.saving("saving");
    this.#timer = window.setTimeout(() => {
      this.#timer = undefined;
      void this.#send();
    }, delay);
  }

  /** Try at once, for instance when the connection is back. */
  hurry(): void {
    window.clearTimeout(this.#timer);
    this.#timer = undefined;
    this.flush();
  }

  stop(): void {
    this.#stopped = true;
    window.clearTimeout(this.#timer);
  }

  async #send(): Promise<void> {
    this.#sending = this.#singly ? this.#waiting.slice(0, 1) : this.#waiting;
    this.#waiting = this.#waiting.slice(this.#sending.length);
    const answer = await api
      .POST("/api/clips/{id}/edits", {
        params: { path: { id: this.clipId } },
        body: { edits: this.#sending, seen: this.heard.seen() },
      })
      .catch(() => null);
    const status = answer?.response.status ?? 0;
    if (answer?.data) this.#arrived(answer.data);
    else if (status === 422 || status === 404) this.#refuse(answer?.error);
    else this.#tryAgain(status === 401 || status === 403 ? "signed-out" : "offline");
  }

  #arrived(measured: Schemas["EditAnswer"]): void {
    const sent = new Set(this.#sending.map((edit) => edit.id)).size;
    this.#sending = [];
    this.#tries = 0;
    this.#store();
    this.heard.measured(measured, sent);
    if (!this.#waiting.length) this.#singly = false;
    if (this.#waiting.length) this.flush();
    else this.heard.saving("saved");
  }

  #tryAgain(state: Saving): void {
    this.#waiting = [...this.#sending, ...this.#waiting];
    this.#sending = [];
    this.#store();
    this.heard.saving(state);
    const delay = RETRY_MS[Math.min(this.#tries++, RETRY_MS.length - 1)] ?? 4000;
    this.flush(delay);
  }

  /** The server will never take one of these: find it, say so, and let the others through. */
  #refuse(error: unknown): void {
    const refused = this.#sending;
    this.#sending = [];
    if (refused.length > 1) {
      this.#singly = true;
      this.#waiting = [...refused, ...this.#waiting];
    } else {
      const detail = (error as { detail?: string } | undefined)?.detail;
      this.heard.refused(detail ?? "The server refused a change.");
    }
    this.#store();
    this.heard.saving(this.#waiting.length ? "saving" : "saved");
    this.flush();
  }

  get #key(): string {
    return `tropometer.unsent.${this.clipId}`;
  }

  /** What this tab and tabs that were closed or broke have left; what another tab sends too is done once. */
  #stored(): SentEdit[] {
    const left = Object.keys(localStorage).filter((key) => key.startsWith(this.#key));
    const edits = left.flatMap((key) => {
      try {
        return JSON.parse(localStorage.getItem(key) ?? "[]") as SentEdit[];
      } catch {
        return [];
      }
    });
    for (const key of left) if (key !== `${this.#key}.${TAB}`) localStorage.removeItem(key);
    return edits;
  }

  /** Each tab keeps its own list, so that none writes over another's. */
  #store(): void {
    const unsent = this.unsent;
    const key = `${this.#key}.${TAB}`;
    if (unsent.length) localStorage.setItem(key, JSON.stringify(unsent));
    else localStorage.removeItem(key);
  }
}

const TAB = crypto.randomUUID();
const CHANNEL = "tropometer.edits";

/** Tell other tabs of this browser that a swing has changed. */
export function tellOtherTabs(swingId: string): void {
  const channel = new BroadcastChannel(CHANNEL);
  channel.postMessage(swingId);
  channel.close();
}

/** Hear of swings that other tabs have changed; returns how to stop. */
export function onOtherTabs(changed: (swingId: string) => void): () => void {
  const channel = new BroadcastChannel(CHANNEL);
  channel.onmessage = (event) => changed(String(event.data));
  return () => channel.close();
}
