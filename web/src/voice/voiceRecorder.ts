import {
  AudioSample,
  AudioSampleSource,
  canEncodeAudio,
  Mp4OutputFormat,
  Output,
  StreamTarget,
  WavOutputFormat,
  WebMOutputFormat,
} from "mediabunny";
import { type Block, type Microphone, RATE } from "./microphone";
import { VoiceClock } from "./voiceClock";

export type Container = "webm" | "mp4" | "wav";

const BITS_A_SECOND = 40_000;
const CLUSTER_S = 1;

interface Way {
  container: Container;
  format: () => WebMOutputFormat | Mp4OutputFormat | WavOutputFormat;
  codec: "opus" | "aac" | "pcm-s16";
}

const WAYS: Way[] = [
  {
    container: "webm",
    codec: "opus",
    format: () => new WebMOutputFormat({ appendOnly: true, minimumClusterDuration: CLUSTER_S }),
  },
  {
    container: "mp4",
    codec: "aac",
    format: () => new Mp4OutputFormat({ fastStart: "fragmented", minimumFragmentDuration: CLUSTER_S }),
  },
];
/** Any browser can send what it hears as it is: larger, and just as good. */
const PLAIN: Way = { container: "wav", codec: "pcm-s16", format: () => new WavOutputFormat() };

async function wayHere(): Promise<Way> {
  if (!("AudioEncoder" in window)) return PLAIN;
  for (const way of WAYS)
    if (await canEncodeAudio(way.codec, { numberOfChannels: 1, sampleRate: RATE, bitrate: BITS_A_SECOND }))
      return way;
  return PLAIN;
}

/** Records what a microphone hears, in bytes that only grow. Its clock is the number of samples taken. */
export class VoiceRecorder {
  readonly clock: VoiceClock;
  level = 0; // 0 to 1, of the last block
  #bytes: Uint8Array[] = [];
  #paused = true;
  #work: Promise<void> = Promise.resolve();
  #failed: Error | null = null;

  private constructor(
    readonly microphone: Microphone,
    readonly container: Container,
    readonly output: Output,
    readonly source: AudioSampleSource,
    bytes: Uint8Array[],
  ) {
    this.#bytes = bytes;
    this.clock = new VoiceClock(RATE, () => microphone.context.currentTime);
    microphone.listen((block) => this.#hear(block));
  }

  static async open(microphone: Microphone): Promise<VoiceRecorder> {
    const way = await wayHere();
    const bytes: Uint8Array[] = [];
    const target = new StreamTarget(
      new WritableStream({
        write: ({ data, position }) => {
          if (position === written) {
            bytes.push(data);
            written += data.length;
          } // lengths that are filled in at the end: nobody needs them
        },
      }),
    );
    let written = 0;
    const output = new Output({ format: way.format(), target });
    const source = new AudioSampleSource(
      way.codec === "pcm-s16" ? { codec: way.codec } : { codec: way.codec, bitrate: BITS_A_SECOND },
    );
    output.addAudioTrack(source);
    await output.start();
    return new VoiceRecorder(microphone, way.container, output, source, bytes);
  }

  get failed(): Error | null {
    return this.#failed;
  }

  /** Begin to take what is heard, or go on. */
  go(): void {
    this.#paused = false;
  }

  pause(): void {
    this.#paused = true;
    this.clock.stand();
  }

  /** The bytes since the last time. */
  take(): Uint8Array {
    const all = this.#bytes.splice(0);
    const whole = new Uint8Array(all.reduce((sum, each) => sum + each.length, 0));
    let at = 0;
    for (const each of all) {
      whole.set(each, at);
      at += each.length;
    }
    return whole;
  }

  /** Take nothing more; what `take` gives then is the rest. */
  async stop(): Promise<void> {
    this.pause();
    this.microphone.listen(() => undefined);
    await this.#work;
    await this.output.finalize().catch((error: Error) => this.#fail(error));
  }

  #hear({ samples, end }: Block): void {
    this.level = Math.sqrt(samples.reduce((sum, each) => sum + each * each, 0) / samples.length);
    if (this.#paused || this.#failed) return;
    const timestamp = this.clock.samples / RATE;
    this.clock.took(samples.length, end);
    const said = new AudioSample({
      data: samples,
      format: "f32",
      numberOfChannels: 1,
      sampleRate: RATE,
      timestamp,
    });
    this.#work = this.#work
      .then(() => this.source.add(said))
      .catch((error: Error) => this.#fail(error))
      .finally(() => said.close());
  }

  #fail(error: Error): void {
    this.#failed ??= error;
  }
}
