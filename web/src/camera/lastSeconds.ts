import {
  AudioSample,
  AudioSampleSource,
  BufferTarget,
  EncodedPacket,
  EncodedVideoPacketSource,
  MkvOutputFormat,
  Mp4OutputFormat,
  Output,
  type OutputFormat,
  type VideoCodec,
  WebMOutputFormat,
} from "mediabunny";
import type { CutSound } from "./sound/lastSound";

const KEPT_US = 8_000_000;
const KEY_EVERY_US = 500_000;
const BITS_A_SECOND = 4_000_000;

/** Ways to encode, the one that a phone does in hardware first. */
const WAYS: { codec: VideoCodec; config: string; webm: boolean }[] = [
  { codec: "avc", config: "avc1.4d0028", webm: false },
  { codec: "vp9", config: "vp09.00.31.08", webm: true },
  { codec: "vp8", config: "vp8", webm: true },
];

interface Kept {
  packet: EncodedPacket;
  from: number; // microseconds
  key: boolean;
}

/** A clip that was cut out, and when its first picture was, microseconds. */
export interface Cut {
  clip: File;
  from: number;
}

/** The last seconds of a live picture, encoded as they come and forgotten as they age: nothing is stored. */
export class LastSeconds {
  #kept: Kept[] = [];
  #meta: EncodedVideoChunkMetadata | undefined;
  #lastKey = Number.NEGATIVE_INFINITY;
  #trouble: Error | null = null;

  private constructor(
    readonly encoder: VideoEncoder,
    readonly way: (typeof WAYS)[number],
  ) {}

  /** Null where this browser cannot encode a picture. */
  static async open(width: number, height: number): Promise<LastSeconds | null> {
    if (!("VideoEncoder" in window)) return null;
    for (const way of WAYS) {
      const config: VideoEncoderConfig = {
        codec: way.config,
        width: width - (width % 2),
        height: height - (height % 2),
        bitrate: BITS_A_SECOND,
        latencyMode: "realtime",
        ...(way.codec === "avc" ? { avc: { format: "avc" as const } } : {}),
      };
      const can = await VideoEncoder.isConfigSupported(config).catch(() => null);
      if (!can?.supported) continue;
      const encoder = new VideoEncoder({
        output: (chunk, meta) => made.#take(chunk, meta),
        error: (error) => made.#fail(error),
      });
      const made: LastSeconds = new LastSeconds(encoder, way);
      encoder.configure(config);
      return made;
    }
    return null;
  }

  get trouble(): Error | null {
    return this.#trouble;
  }

  /** Take a frame; it is closed here. A busy encoder leaves frames out. */
  take(frame: VideoFrame): void {
    if (this.encoder.state === "configured" && this.encoder.encodeQueueSize < 4) {
      const key = frame.timestamp - this.#lastKey >= KEY_EVERY_US;
      if (key) this.#lastKey = frame.timestamp;
      this.encoder.encode(frame, { keyFrame: key });
    }
    frame.close();
  }

  /**
   * A clip of what was seen between two times, microseconds; from the frame before on at which it can begin.
   *
   * With what was heard meanwhile, if it was: as it is, for what squeezes a sound blurs when a strike was.
   */
  async cut(from: number, to: number, name: string, sound: CutSound | null): Promise<Cut | null> {
    await this.encoder.flush();
    this.#lastKey = Number.NEGATIVE_INFINITY; // after a flush an encoder begins anew
    const first = this.#kept.findLastIndex((each) => each.key && each.from <= from);
    const wanted = this.#kept.slice(Math.max(0, first)).filter((each) => each.from <= to);
    const start = wanted.findIndex(({ key }) => key);
    const begun = wanted[start];
    if (!begun || !this.#meta) return null;
    const [ending, format] = this.#container(sound !== null);
    const target = new BufferTarget();
    const output = new Output({ format, target });
    const source = new EncodedVideoPacketSource(this.way.codec);
    output.addVideoTrack(source);
    const audible = new AudioSampleSource({ codec: "pcm-s16" });
    if (sound) output.addAudioTrack(audible);
    await output.start();
    for (const each of wanted.slice(start))
      await source.add(each.packet.clone({ timestamp: (each.from - begun.from) / 1e6 }), this.#meta);
    if (sound) {
      const early = Math.max(0, Math.ceil(((begun.from / 1000 - sound.from) / 1000) * sound.rate));
      const sample = new AudioSample({
        data: sound.samples.subarray(early),
        format: "s16",
        numberOfChannels: 1,
        sampleRate: sound.rate,
        timestamp: (sound.from * 1000 - begun.from) / 1e6 + early / sound.rate,
      });
      await audible.add(sample);
      sample.close();
    }
    await output.finalize();
    if (!target.buffer) return null;
    const type = ending === "mkv" ? "video/x-matroska" : `video/${ending}`;
    const clip = new File([target.buffer], `${name}.${ending}`, { type });
    return { clip, from: begun.from };
  }

  #container(audible: boolean): ["webm" | "mp4" | "mkv", OutputFormat] {
    if (!this.way.webm) return ["mp4", new Mp4OutputFormat()];
    return audible ? ["mkv", new MkvOutputFormat()] : ["webm", new WebMOutputFormat()];
  }

  close(): void {
    if (this.encoder.state !== "closed") this.encoder.close();
    this.#kept = [];
  }

  #take(chunk: EncodedVideoChunk, meta: EncodedVideoChunkMetadata | undefined): void {
    if (meta?.decoderConfig) this.#meta = meta;
    this.#kept.push({
      packet: EncodedPacket.fromEncodedChunk(chunk),
      from: chunk.timestamp,
      key: chunk.type === "key",
    });
    const oldest = chunk.timestamp - KEPT_US;
    const stays = this.#kept.findLastIndex((each) => each.key && each.from <= oldest);
    if (stays > 0) this.#kept.splice(0, stays);
  }

  #fail(error: Error): void {
    this.#trouble ??= error;
  }
}
