import { create } from "zustand";
import { outbox } from "../../outbox";
import { walkLane } from "../../outbox/posts";
import { base64 } from "../../voice/base64";
import type { Microphone } from "../../voice/microphone";
import type { VoiceRecorder } from "../../voice/voiceRecorder";
import type { Cut } from "../../walk/cut";
import { leadingTo, NOTHING, type Scene, type Score } from "../../walk/score";
import type { Bench } from "../benchStore";
import { benchScene } from "./benchScene";
import { onSeen, sayPointer, seenNow } from "./seen";

const PIECE_MS = 2000; // of a take, sent as soon as it is there: what a fault can cost
const COUNT = 3;

type Phase = "idle" | "opening" | "counting" | "recording" | "paused" | "ending";

interface Recording {
  phase: Phase;
  count: number; // until it begins
  ms: number; // on the voice's clock
  level: number; // 0 to 1
  trouble: string;
  label: string; // of the microphone
  devices: { id: string; label: string }[];
  device: string | null; // that was chosen
}

/** How the recording of a walk stands; it goes on whatever station is open. */
export const useRecording = create<Recording>(() => ({
  phase: "idle",
  count: 0,
  ms: 0,
  level: 0,
  trouble: "",
  label: "",
  devices: [],
  device: null,
}));

const set = useRecording.setState;
let running: Take | null = null;

/** One take: the voice, and beside it what happens on the bench. */
class Take {
  readonly id = crypto.randomUUID();
  #scene: Scene = NOTHING;
  #score: Score = [];
  #pieces = 0;
  #stops: (() => void)[] = [];
  #asked = 0;
  #sentAt = 0;

  constructor(
    readonly bench: Bench,
    readonly lessonId: string,
    readonly microphone: Microphone,
    readonly voice: VoiceRecorder,
  ) {}

  begin(cut: Cut | null): void {
    this.#post({
      kind: "take",
      lessonId: this.lessonId,
      take: {
        id: this.id,
        container: this.voice.container,
        silent: false,
        cut: cut && withTake(cut, this.id),
      },
    });
    this.voice.go();
    this.#happened();
    const look = () => {
      if (!this.#asked) this.#asked = requestAnimationFrame(() => this.#happened());
    };
    const beat = window.setInterval(() => this.#beat(), 80);
    this.#stops.push(
      this.bench.subscribe(look),
      onSeen(look),
      () => clearInterval(beat),
      () => cancelAnimationFrame(this.#asked),
    );
  }

  /** "Say this again": a mark for the mending. */
  again(): void {
    this.#score.push({ at: this.voice.clock.now(), kind: "again" });
  }

  async end(): Promise<void> {
    for (const stop of this.#stops.splice(0)) stop();
    this.#happened();
    await this.voice.stop();
    this.#send(true);
    this.microphone.close();
  }

  /** Whatever differs from what was seen last is written down with the voice's time. */
  #happened(): void {
    this.#asked = 0;
    const scene = benchScene(this.bench.getState(), seenNow());
    this.#score.push(...leadingTo(this.#scene, scene, this.voice.clock.now()));
    this.#scene = scene;
  }

  #beat(): void {
    const ms = this.voice.clock.now();
    set({ ms, level: this.voice.level });
    if (this.voice.failed)
      void endTake(
        `The voice could not be recorded any further (${this.voice.failed.message}). What was said before is kept.`,
      );
    else if (ms - this.#sentAt >= PIECE_MS) this.#send(false);
  }

  #send(last: boolean): void {
    const until_ms = this.voice.clock.now();
    this.#sentAt = until_ms;
    const piece = {
      number: this.#pieces++,
      voice: base64(this.voice.take()),
      score: this.#score,
      until_ms,
      last,
    };
    this.#score = [];
    this.#post({ kind: "piece", lessonId: this.lessonId, takeId: this.id, piece });
  }

  #post(post: Parameters<ReturnType<typeof outbox>["add"]>[0]["post"]): void {
    const id = crypto.randomUUID();
    outbox().add({ id, lane: walkLane(this.lessonId), subject: id, what: "a part of the walk", post });
  }
}

/** A cut with a take that is yet to be said where the empty place is. */
const withTake = (cut: Cut, id: string): Cut =>
  cut.map((stretch) => (stretch.take === "" ? { ...stretch, take: id } : stretch));

/**
 * Open the microphone, count to three and record. `cut` is the walk with the new take in it, under the name "";
 * null: it goes to the end.
 */
export async function beginTake(bench: Bench, lessonId: string, cut: Cut | null = null): Promise<void> {
  if (useRecording.getState().phase !== "idle") return;
  set({ phase: "opening", trouble: "", ms: 0 });
  let open: Microphone | null = null;
  try {
    // Fetched by whoever records: the bench is open without it.
    const { microphones, openMicrophone } = await import("../../voice/microphone");
    const { VoiceRecorder } = await import("../../voice/voiceRecorder");
    const microphone = await openMicrophone(useRecording.getState().device);
    open = microphone;
    const voice = await VoiceRecorder.open(microphone);
    set({ label: microphone.label, devices: await microphones() });
    const take = new Take(bench, lessonId, microphone, voice);
    microphone.lost(() => void endTake("The microphone was taken away. What was said before is kept."));
    const metre = window.setInterval(() => set({ level: voice.level }), 80);
    for (let count = COUNT; count > 0; count--) {
      set({ phase: "counting", count });
      await new Promise((turn) => setTimeout(turn, 800));
      if (useRecording.getState().phase !== "counting") {
        clearInterval(metre);
        microphone.close();
        return;
      }
    }
    clearInterval(metre);
    running = take;
    take.begin(cut);
    set({ phase: "recording" });
  } catch (error) {
    open?.close();
    const { name, message } = error as Error;
    const trouble = name === "NoMicrophone" ? message : `Recording failed (${message}).`;
    set({ phase: "idle", trouble });
  }
}

/** End the take, or the counting before it; what was said is kept. */
export async function endTake(trouble = ""): Promise<void> {
  const { phase } = useRecording.getState();
  if (phase === "counting") set({ phase: "idle" });
  const take = running;
  if (!take || phase === "ending") return;
  set({ phase: "ending", trouble });
  running = null;
  sayPointer(null);
  await take.end();
  set({ phase: "idle", level: 0 });
}

export function pauseTake(): void {
  const { phase } = useRecording.getState();
  if (!running) return;
  if (phase === "recording") {
    running.voice.pause();
    set({ phase: "paused" });
  } else if (phase === "paused") {
    running.voice.go();
    set({ phase: "recording" });
  }
}

export const sayAgain = (): void => running?.again();

/** Whether something is being recorded, so that the bench must not be left without a word. */
export const isRecording = (): boolean => running !== null;

window.addEventListener("beforeunload", (event) => {
  if (isRecording()) event.preventDefault();
});
