import type { Schemas } from "../../api/client";

/** A try on its way to the server: what is known of it, and how far it got. */
export interface KeptTry {
  id: string;
  hour: string;
  student: string;
  at: number; // when the ball was struck, milliseconds by this machine's clock
  name: string;
  about: Omit<Schemas["FilmedIn"], "clip" | "ago_s"> & { view: Schemas["ClipIn"]["view"] };
  upload?: string; // its upload, once it has arrived
  refused?: string; // what the server said; it waits for a hand
  inPageOnly?: boolean; // the disk takes no more: it is gone with the page
}

/** Tries that the server does not have yet, kept on disk by the browser: a restart loses none. */
export class KeptTries {
  readonly #name: string;
  readonly #inPage = new Map<string, { kept: KeptTry; clip: Blob }>();

  constructor(user: string) {
    this.#name = `tropometer.tries.${user}`;
  }

  async keep(kept: KeptTry, clip: Blob): Promise<void> {
    const headers = { "content-type": clip.type, "x-kept": encodeURIComponent(JSON.stringify(kept)) };
    try {
      await (await this.#shelf()).put(addressOf(kept.id), new Response(clip, { headers }));
      this.#inPage.delete(kept.id);
    } catch {
      this.#inPage.set(kept.id, { kept: { ...kept, inPageOnly: true }, clip });
    }
  }

  /** All that wait, the oldest first. */
  async all(): Promise<KeptTry[]> {
    const shelf = await this.#shelf();
    const answers = await Promise.all((await shelf.keys()).map((request) => shelf.match(request)));
    const onDisk = answers.flatMap((answer) => (answer ? [aboutOf(answer)] : []));
    const found = onDisk.filter(({ id }) => !this.#inPage.has(id));
    found.push(...[...this.#inPage.values()].map(({ kept }) => kept));
    return found.sort((a, b) => a.at - b.at);
  }

  /** The clip of one, as the same file each time: an upload that broke off goes on. */
  async clip(kept: KeptTry): Promise<File | null> {
    const answer = await (await this.#shelf()).match(addressOf(kept.id));
    const blob = this.#inPage.get(kept.id)?.clip ?? (await answer?.blob());
    if (!blob) return null;
    return new File([blob], kept.name, { type: blob.type, lastModified: kept.at });
  }

  async forget(id: string): Promise<void> {
    this.#inPage.delete(id);
    await (await this.#shelf()).delete(addressOf(id));
  }

  #shelf(): Promise<Cache> {
    return caches.open(this.#name);
  }
}

const addressOf = (id: string) => `/kept-tries/${id}`;

const aboutOf = (answer: Response) =>
  JSON.parse(decodeURIComponent(answer.headers.get("x-kept") ?? "null")) as KeptTry;
