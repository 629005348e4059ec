// Proxies are H.264; whatever the clip turns out to be, it is told before its first frame.
const LIKELY: VideoDecoderConfig = { codec: "avc1.640028" };
const MOST_QUEUED = 1;

/**
 * The browser's own decoder. It is asked for before there is a clip: the thread that draws the screen hands it out, and
 * that one has its hands full just when a bench opens. A browser takes a decoder away that was not used for a while:
 * it is opened again by whoever needs it.
 */
export class PictureDecoder {
  #decoder: VideoDecoder;
  #config = LIKELY;
  #hear = (frame: VideoFrame) => frame.close();
  trouble: Error | null = null; // why it was taken away

  constructor() {
    this.#decoder = this.#opened();
  }

  get closed(): boolean {
    return this.#decoder.state === "closed";
  }

  /** Decode what is coded like this from here on; whoever hears of a frame closes it. */
  use(config: VideoDecoderConfig, hear: (frame: VideoFrame) => void): void {
    this.#config = config;
    this.#hear = hear;
    if (this.closed) this.reopen();
    else this.#decoder.configure(config);
  }

  /** Open it again if it was taken away. */
  reopen(): void {
    if (this.closed) this.#decoder = this.#opened();
  }

  decode(chunk: EncodedVideoChunk): void {
    this.#decoder.decode(chunk);
  }

  /** Resolves once all that it was given has come out. */
  flush(): Promise<void> {
    return this.#decoder.flush();
  }

  /** Waits until it has little left to do, so that a new wish need not wait for old ones. */
  room(): Promise<void> {
    const decoder = this.#decoder;
    if (this.closed || decoder.decodeQueueSize <= MOST_QUEUED) return Promise.resolve();
    return new Promise((done) => {
      decoder.addEventListener("dequeue", () => done(this.room()), { once: true });
    });
  }

  #opened(): VideoDecoder {
    this.trouble = null;
    const decoder = new VideoDecoder({
      output: (frame) => this.#hear(frame),
      error: (error) => {
        this.trouble = error;
        decoder.dispatchEvent(new Event("dequeue")); // nobody is to wait for room in a closed one
      },
    });
    decoder.configure(this.#config);
    return decoder;
  }
}
