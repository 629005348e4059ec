import { BufferSource, type EncodedPacket, EncodedPacketSink, Input, MP4, UrlSource } from "mediabunny";

const PROXY_FPS = 30;
const CACHE_BYTES = 200 * 1024 * 1024;
const MIN_CACHED = 24;
const CHUNK = 4;
const WHOLE_BYTES = 150 * 1024 * 1024; // a file up to this size is fetched whole once its first frame is there
const NEAR = 2; // a wish so close to the last one is a step, one farther off a jump
const QUIET_MS = 250; // after a jump nothing is decoded ahead for so long: another jump would have to wait for it
const MOST_QUEUED = 1;

export type Picture = ImageBitmap | VideoFrame;

export interface StoreStats {
  decoded: number;
  cached: number;
}

/**
 * Frames of a proxy by number. Frame N carries presentation time N on a constant 30 a second, so a
 * number names exactly one frame; seeking by time is never used. One decoder, one request at a time:
 * the frame wanted now goes before frames that may be wanted next.
 */
export class FrameStore {
  readonly exact = "decoded" as const;
  #input: Input;
  #sink: EncodedPacketSink;
  readonly #keys: boolean[];
  readonly #decoder: VideoDecoder;
  readonly #capacity: number;
  readonly #cache = new Map<number, ImageBitmap>();
  readonly #waiting = new Map<number, ((image: Picture | undefined) => void)[]>();
  readonly #leaving = new AbortController();
  readonly #first: Promise<void>;
  #arrived: () => void = () => undefined;
  #next: { input: Input; sink: EncodedPacketSink } | null = null;
  #pending: Promise<void>[] = [];
  #wanted = 0;
  #decoding = -1;
  #direction: 1 | -1 = 1;
  #running = false;
  #resting = false;
  #timer: number | undefined;
  #closed = false;
  #failure: Error | null = null;
  stats: StoreStats = { decoded: 0, cached: 0 };

  private constructor(
    input: Input,
    sink: EncodedPacketSink,
    keys: boolean[],
    config: VideoDecoderConfig,
    bytes: number,
  ) {
    this.#input = input;
    this.#sink = sink;
    this.#keys = keys;
    this.#capacity = Math.max(MIN_CACHED, Math.floor(CACHE_BYTES / bytes));
    this.#decoder = new VideoDecoder({
      output: (frame) => this.#pending.push(this.#keep(frame)),
      error: (error) => this.#fail(error),
    });
    this.#decoder.configure(config);
    this.#first = new Promise((done) => {
      this.#arrived = done;
    });
  }

  /** The frames of a proxy, or null where this browser has no decoder for them. */
  static async open(url: string): Promise<FrameStore | null> {
    const input = new Input({ formats: [MP4], source: new UrlSource(url) });
    const track = await input.getPrimaryVideoTrack();
    const config = await track?.getDecoderConfig();
    if (!track || !config) throw new Error("The clip's picture cannot be read.");
    if (!(await VideoDecoder.isConfigSupported(config)).supported) {
      input.dispose();
      return null;
    }
    const sink = new EncodedPacketSink(track);
    const keys: boolean[] = [];
    for await (const packet of sink.packets(undefined, undefined, { metadataOnly: true }))
      keys[Math.round(packet.timestamp * PROXY_FPS)] = packet.type === "key";
    const store = new FrameStore(input, sink, keys, config, track.displayWidth * track.displayHeight * 4);
    void store.#fetchWhole(url);
    return store;
  }

  /** After the first frame: the whole file at once, so that no jump waits for the network. */
  async #fetchWhole(url: string): Promise<void> {
    try {
      await this.#first;
      const answer = await fetch(url, { signal: this.#leaving.signal });
      if (!answer.ok || Number(answer.headers.get("Content-Length")) > WHOLE_BYTES) return;
      const input = new Input({ formats: [MP4], source: new BufferSource(await answer.arrayBuffer()) });
      const track = await input.getPrimaryVideoTrack();
      if (!track || this.#closed) return input.dispose();
      this.#next = { input, sink: new EncodedPacketSink(track) };
    } catch {
      // The file goes on being read piece by piece.
    }
  }

  get frameCount(): number {
    return this.#keys.length;
  }

  /** The frame if it is at hand now. */
  cached(number: number): ImageBitmap | undefined {
    return this.#cache.get(number);
  }

  /**
   * The frame, decoded if need be; undefined when another frame was wanted before this one was ready.
   * It must be drawn at once: a frame fresh from the decoder is closed in the next turn.
   */
  frame(number: number, direction: 1 | -1 = 1): Promise<Picture | undefined> {
    if (this.#failure) return Promise.reject(this.#failure);
    if (Math.abs(number - this.#wanted) > NEAR) this.#rest();
    this.#wanted = number;
    this.#direction = direction;
    // What is being decoded now is still worth showing: a quick hand would else see nothing at all.
    for (const [other, waiters] of this.#waiting)
      if (other !== number && other !== this.#decoding) {
        this.#waiting.delete(other);
        for (const done of waiters) done(undefined);
      }
    const have = this.#cache.get(number);
    const answer = have
      ? Promise.resolve(have)
      : new Promise<Picture | undefined>((done) => {
          this.#waiting.set(number, [...(this.#waiting.get(number) ?? []), done]);
        });
    void this.#run();
    return answer;
  }

  /** Decode nothing ahead for a while. */
  #rest(): void {
    window.clearTimeout(this.#timer);
    this.#resting = true;
    this.#timer = window.setTimeout(() => {
      this.#resting = false;
      void this.#run();
    }, QUIET_MS);
  }

  close(): void {
    this.#closed = true;
    this.#leaving.abort();
    this.#next?.input.dispose();
    window.clearTimeout(this.#timer);
    for (const bitmap of this.#cache.values()) bitmap.close();
    this.#cache.clear();
    for (const waiters of this.#waiting.values()) for (const done of waiters) done(undefined);
    this.#waiting.clear();
    if (this.#decoder.state !== "closed") this.#decoder.close();
    this.#input.dispose();
  }

  async #run(): Promise<void> {
    if (this.#running) return;
    this.#running = true;
    try {
      for (let job = this.#nextJob(); job && !this.#closed; job = this.#nextJob()) await this.#decode(...job);
    } catch (error) {
      if (!this.#closed) this.#fail(error as Error);
    } finally {
      this.#running = false;
    }
  }

  /** First and last frame to decode next: the wanted one alone, else a chunk ahead of it. */
  #nextJob(): [number, number] | undefined {
    if (!this.#cache.has(this.#wanted)) return [this.#wanted, this.#wanted];
    if (this.#resting) return undefined;
    const reach = Math.floor(this.#capacity / 2) - CHUNK;
    for (let step = 1; step <= reach; step++) {
      const frame = this.#wanted + step * this.#direction;
      if (frame < 0 || frame >= this.frameCount) return undefined;
      if (!this.#cache.has(frame)) {
        const far = frame + (CHUNK - 1) * this.#direction;
        return [Math.max(0, Math.min(frame, far)), Math.min(this.frameCount - 1, Math.max(frame, far))];
      }
    }
  }

  async #decode(first: number, last: number): Promise<void> {
    if (this.#next) {
      this.#input.dispose();
      ({ input: this.#input, sink: this.#sink } = this.#next);
      this.#next = null;
    }
    this.#decoding = this.#wanted;
    let key = first;
    while (key > 0 && !this.#keys[key]) key--;
    let packet: EncodedPacket | null = await this.#sink.getKeyPacket(key / PROXY_FPS + 1e-4);
    for (let number = key; number <= last && packet; number++) {
      // The timestamp carries the frame's number: real ones are cut to whole microseconds.
      this.#decoder.decode(
        new EncodedVideoChunk({ type: packet.type, timestamp: number * 1000, data: packet.data }),
      );
      await this.#room();
      if (this.#overtaken(first, last)) break;
      packet = number < last ? await this.#sink.getNextPacket(packet) : null;
    }
    await this.#decoder.flush();
    await Promise.all(this.#pending);
    this.#pending = [];
    if (this.#wanted >= first && this.#wanted <= last && !this.#cache.has(this.#wanted))
      throw new Error(`Frame ${this.#wanted} cannot be decoded.`);
    this.#evict();
  }

  /** Waits until the decoder has little left to do, so that a new wish need not wait for old ones. */
  #room(): Promise<void> {
    if (this.#decoder.decodeQueueSize <= MOST_QUEUED) return Promise.resolve();
    return new Promise((done) => {
      this.#decoder.addEventListener("dequeue", () => done(this.#room()), { once: true });
    });
  }

  /** Another frame than those being decoded is wanted and not at hand. */
  #overtaken(first: number, last: number): boolean {
    return (this.#wanted < first || this.#wanted > last) && !this.#cache.has(this.#wanted);
  }

  async #keep(frame: VideoFrame): Promise<void> {
    const number = Math.round(frame.timestamp / 1000);
    this.stats.decoded++;
    const waiters = this.#waiting.get(number);
    this.#waiting.delete(number);
    for (const done of waiters ?? []) done(frame);
    // Whoever waits for it draws it now, and the screen may show it: the copy for the cache takes as long again.
    if (waiters) await new Promise((turn) => window.setTimeout(turn));
    const bitmap = await createImageBitmap(frame);
    frame.close();
    if (this.#closed || this.#cache.has(number)) {
      bitmap.close();
      return;
    }
    this.#cache.set(number, bitmap);
    this.#arrived();
    this.stats.cached = this.#cache.size;
    for (const done of this.#waiting.get(number) ?? []) done(bitmap); // who asked meanwhile
    this.#waiting.delete(number);
  }

  #evict(): void {
    const farFirst = [...this.#cache.keys()].sort(
      (a, b) => Math.abs(b - this.#wanted) - Math.abs(a - this.#wanted),
    );
    for (const number of farFirst.slice(0, Math.max(0, this.#cache.size - this.#capacity))) {
      this.#cache.get(number)?.close();
      this.#cache.delete(number);
    }
    this.stats.cached = this.#cache.size;
  }

  #fail(error: Error): void {
    this.#failure = error;
    for (const waiters of this.#waiting.values()) for (const done of waiters) done(undefined);
    this.#waiting.clear();
  }
}
