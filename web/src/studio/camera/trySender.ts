import { createStore } from "zustand/vanilla";
import { ApiError } from "../../api/client";
import { KeptTries, type KeptTry } from "./keptTries";
import type { Way } from "./ways";

const AGAIN_MS = 5000;
const LONGEST_AGO_S = 7 * 86_400; // what waited longer is taken all the same
// What is said of the try itself; signed out, too much at once or too slow will pass.
const REFUSED = new Set([400, 404, 409, 413, 422]);

export interface Sending {
  waiting: KeptTry[]; // the oldest is under way
  share: number;
  trouble: string | null;
}

/** Sends tries one after the other in the background; what the server does not have stays on disk. */
export class TrySender {
  readonly store = createStore<Sending>(() => ({ waiting: [], share: 0, trouble: null }));
  readonly #kept: KeptTries;
  readonly #timer: number;
  #ended = new AbortController();
  #wake: () => void = () => undefined;

  constructor(
    private readonly way: Way,
    private readonly arrived: (kept: KeptTry) => void,
  ) {
    this.#kept = new KeptTries(way.shelf);
    window.addEventListener("online", this.#online);
    // Another tab may have kept one, or sent one.
    this.#timer = window.setInterval(() => {
      void this.#look();
      this.#wake();
    }, AGAIN_MS);
    void this.#run();
  }

  end(): void {
    window.removeEventListener("online", this.#online);
    window.clearInterval(this.#timer);
    this.#ended.abort();
    this.#wake();
  }

  /** Keep a try on disk, or in the page where the disk takes no more, and send it. */
  async add(kept: KeptTry, clip: File): Promise<void> {
    await this.#kept.keep(kept, clip);
    await this.#look();
    this.#wake();
  }

  async forget(id: string): Promise<void> {
    await this.#kept.forget(id);
    await this.#look();
  }

  /** One that was refused, once more from the beginning. */
  async again(kept: KeptTry): Promise<void> {
    const clip = await this.#kept.clip(kept);
    const { refused: _, upload: __, ...anew } = kept;
    if (clip) await this.add(anew, clip);
  }

  readonly #online = () => this.#wake();

  async #run(): Promise<void> {
    // Of several tabs one sends; the others wait until it is gone.
    await navigator.locks
      .request(`tropometer.tries.${this.way.shelf}`, { signal: this.#ended.signal }, async () => {
        while (!this.#ended.signal.aborted) {
          const next = (await this.#look()).find(({ refused }) => !refused);
          if (!next) await this.#sleep();
          else await this.#send(next);
        }
      })
      .catch((error: unknown) => {
        if (!this.#ended.signal.aborted) throw error;
      });
  }

  async #send(kept: KeptTry): Promise<void> {
    try {
      await this.#steps(kept);
      this.store.setState({ trouble: null });
    } catch (error) {
      const words = error instanceof Error ? error.message : String(error);
      if (error instanceof ApiError && REFUSED.has(error.status)) {
        const clip = await this.#kept.clip(kept);
        if (clip) await this.#kept.keep({ ...kept, refused: words }, clip);
        return;
      }
      this.store.setState({ trouble: words });
      await this.#sleep();
    }
  }

  async #steps(kept: KeptTry): Promise<void> {
    const clip = await this.#kept.clip(kept);
    if (!clip) return;
    this.store.setState({ share: 0 });
    const upload =
      kept.upload ?? (await this.way.upload(kept, clip, (share) => this.store.setState({ share })));
    if (!kept.upload) await this.#kept.keep(Object.assign(kept, { upload }), clip);
    const { view, ...about } = kept.about;
    await this.way.film(kept, {
      ...about,
      clip: { upload_id: upload, view, capture_fps: null, flipped: false },
      ago_s: Math.min(Math.max(0, (Date.now() - kept.at) / 1000), LONGEST_AGO_S),
    });
    await this.#kept.forget(kept.id);
    this.arrived(kept);
  }

  async #look(): Promise<KeptTry[]> {
    const waiting = await this.#kept.all();
    this.store.setState({ waiting });
    return waiting;
  }

  /** Until something is added, or a little later. */
  #sleep(): Promise<void> {
    return new Promise((resolve) => {
      this.#wake = resolve;
    });
  }
}
