const WHOLE_BYTES = 150 * 1024 * 1024; // a file up to this size is fetched whole, a larger one piece by piece
const FAR_BYTES = 512 * 1024; // what lies so far behind what has come is fetched by itself
const RETRY_MS = 1000;
const AWAY = [502, 503, 504]; // what a proxy says for a server that is not there

/** A clip's file, fetched once: what is read waits for its bytes, and only a far jump asks for a piece of its own. */
export class ClipFile {
  readonly #url: string;
  readonly #version: string; // pieces of another version would not fit
  readonly size: number;
  readonly #whole: Uint8Array<ArrayBuffer> | null;
  #arrived = 0;
  #flowing = true;
  #waiting: (() => void)[] = [];

  private constructor(url: string, size: number, version: string) {
    this.#url = url;
    this.#version = version;
    this.size = size;
    this.#whole = size <= WHOLE_BYTES ? new Uint8Array(size) : null;
  }

  static async open(url: string): Promise<ClipFile> {
    const answer = await patiently(url);
    if (!answer.ok || !answer.body) throw new Error(`The clip cannot be fetched (${answer.status}).`);
    const { headers } = answer;
    const file = new ClipFile(url, Number(headers.get("Content-Length")), headers.get("ETag") ?? "");
    if (file.#whole) void file.#take(answer.body, file.#whole);
    else {
      file.#flowing = false;
      void answer.body.cancel();
    }
    return file;
  }

  /** The bytes from `start` up to `end`. */
  async read(start: number, end: number): Promise<Uint8Array> {
    while (this.#flowing && end > this.#arrived && start < this.#arrived + FAR_BYTES)
      await new Promise<void>((done) => this.#waiting.push(done));
    if (this.#whole && end <= this.#arrived) return this.#whole.subarray(start, end);
    return this.#piece(start, end);
  }

  /** A piece by itself. */
  async #piece(start: number, end: number): Promise<Uint8Array> {
    const range = { Range: `bytes=${start}-${end - 1}` };
    const headers = this.#version ? { ...range, "If-Range": this.#version } : range;
    for (;;) {
      const answer = await patiently(this.#url, headers);
      if (answer.status === 200) throw new Error("The clip was made anew meanwhile. Reload the page.");
      if (answer.status !== 206) throw new Error(`The clip cannot be fetched (${answer.status}).`);
      const bytes = await answer.arrayBuffer().catch(() => null);
      if (bytes) return new Uint8Array(bytes);
      await pause();
    }
  }

  async #take(body: ReadableStream<Uint8Array>, whole: Uint8Array): Promise<void> {
    try {
      for (const reader = body.getReader(); ; ) {
        const { done, value } = await reader.read();
        if (done) break;
        whole.set(value, this.#arrived);
        this.#arrived += value.length;
        this.#wake();
      }
    } catch {
      // The line broke off: what has not come is asked for piece by piece.
    }
    this.#flowing = false;
    this.#wake();
  }

  #wake(): void {
    const woken = this.#waiting;
    this.#waiting = [];
    for (const done of woken) done();
  }
}

const pause = () => new Promise((turn) => setTimeout(turn, RETRY_MS));

/** What the server answers; where the line is broken or the server away, it is asked until somebody is there. */
async function patiently(url: string, headers: Record<string, string> = {}): Promise<Response> {
  for (;;) {
    const answer = await fetch(url, { headers }).catch(() => null);
    if (answer && !AWAY.includes(answer.status)) return answer;
    await pause();
  }
}
