/** What is asked of the worker that reads one clip. A later wish takes the place of one not yet begun. */
export type Asked =
  | { kind: "open"; url: string }
  | {
      kind: "decode";
      job: number;
      first: number;
      last: number;
      height: number | null; // small pictures of this height, px; null: whole ones
    };

/** What the worker says. */
export type Told =
  | { kind: "opened"; keys: boolean[]; bytes: number } // which frames decode alone; of one whole picture
  | { kind: "unable" } // this browser has no decoder for it
  | { kind: "picture"; number: number; picture: ImageBitmap; height: number | null; took: Took }
  | { kind: "done"; job: number }
  | { kind: "failed"; message: string };

/** Where the time of a job's frame went, ms: until its bytes were there, until it was decoded, until it was a picture. */
export interface Took {
  reading: number;
  decoding: number;
  copying: number;
}
