import { CustomSource, type EncodedPacket, EncodedPacketSink, Input, MP4 } from "mediabunny";
import { ClipFile } from "./clipFile";
import type { Asked, Told } from "./messages";
import type { PictureDecoder } from "./pictureDecoder";

const PROXY_FPS = 30;

type Job = Extract<Asked, { kind: "decode" }>;

/**
 * Decodes frames of a proxy by number. Frame N carries presentation time N on a constant 30 a second,
 * so a number names exactly one frame; seeking by time is never used. One job at a time.
 */
export class ClipDecoder {
  readonly #sink: EncodedPacketSink;
  readonly #pictures: PictureDecoder;
  readonly #tell: (told: Told, given: Transferable[]) => void;
  readonly keys: boolean[];
  readonly bytes: number; // of one decoded picture
  #job: Job | null = null;
  #next: Job | null = null;
  #copies: Promise<void>[] = [];
  #began = 0;
  #read = 0;

  private constructor(
    sink: EncodedPacketSink,
    pictures: PictureDecoder,
    keys: boolean[],
    bytes: number,
    tell: (told: Told, given: Transferable[]) => void,
  ) {
    this.#sink = sink;
    this.#pictures = pictures;
    this.#tell = tell;
    this.keys = keys;
    this.bytes = bytes;
  }

  /** The decoder of a proxy, or null where this browser has none for it. */
  static async open(
    url: string,
    pictures: PictureDecoder,
    tell: (told: Told, given: Transferable[]) => void,
  ): Promise<ClipDecoder | null> {
    const file = await ClipFile.open(url);
    const source = new CustomSource({
      getSize: () => file.size,
      read: (start, end) => file.read(start, end),
    });
    const track = await new Input({ formats: [MP4], source }).getPrimaryVideoTrack();
    const config = await track?.getDecoderConfig();
    if (!track || !config) throw new Error("The clip's picture cannot be read.");
    if (!(await VideoDecoder.isConfigSupported(config)).supported) return null;
    const sink = new EncodedPacketSink(track);
    const keys: boolean[] = [];
    for await (const packet of sink.packets(undefined, undefined, { metadataOnly: true }))
      keys[Math.round(packet.timestamp * PROXY_FPS)] = packet.type === "key";
    const bytes = track.displayWidth * track.displayHeight * 4;
    const clip = new ClipDecoder(sink, pictures, keys, bytes, tell);
    pictures.use(config, (frame) => clip.#copies.push(clip.#hand(frame)));
    return clip;
  }

  /** Do a job; one that is being done is left where it stands, unless it gives that frame as well. */
  async ask(job: Job): Promise<void> {
    this.#next = job;
    if (this.#job) return;
    while (this.#next) {
      this.#job = this.#next;
      this.#next = null;
      await this.#do(this.#job);
      this.#tell({ kind: "done", job: this.#job.job }, []);
    }
    this.#job = null;
  }

  /** A browser takes a decoder away that was not used for a while: it is opened again, once a job. */
  async #do(job: Job): Promise<void> {
    try {
      await this.#decode(job);
    } catch (error) {
      if (!this.#pictures.closed) throw error;
      await this.#decode(job).catch((again: Error) => {
        throw this.#pictures.trouble ?? again;
      });
    }
  }

  async #decode({ first, last }: Job): Promise<void> {
    this.#pictures.reopen();
    this.#began = performance.now();
    let key = first;
    while (key > 0 && !this.keys[key]) key--;
    let packet: EncodedPacket | null = await this.#sink.getKeyPacket(key / PROXY_FPS + 1e-4);
    this.#read = performance.now();
    for (let number = key; number <= last && packet; number++) {
      // The timestamp carries the frame's number: real ones are cut to whole microseconds.
      this.#pictures.decode(
        new EncodedVideoChunk({ type: packet.type, timestamp: number * 1000, data: packet.data }),
      );
      await this.#pictures.room();
      if (this.#next) break;
      packet = number < last ? await this.#sink.getNextPacket(packet) : null;
    }
    await this.#pictures.flush();
    await Promise.all(this.#copies);
    this.#copies = [];
  }

  async #hand(frame: VideoFrame): Promise<void> {
    const number = Math.round(frame.timestamp / 1000);
    const { first, last, height } = this.#job ?? { first: 0, last: -1, height: null };
    if (number < first || number > last) {
      frame.close(); // it only led to the ones that are asked for
      return;
    }
    const decoded = performance.now();
    // A copy, since a decoder has few frames to lend; made here, where nobody waits for the screen.
    const picture = await createImageBitmap(frame, height ? { resizeHeight: height } : {});
    frame.close();
    const took = {
      reading: this.#read - this.#began,
      decoding: decoded - this.#read,
      copying: performance.now() - decoded,
    };
    this.#tell({ kind: "picture", number, picture, height, took }, [picture]);
  }
}
