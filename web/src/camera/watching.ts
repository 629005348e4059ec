import { Eye } from "./eye";
import type { LastSound } from "./sound/lastSound";
import type { Found } from "./swingFinder";

// What is kept of a try: from before the strike, which is when it moves fastest, to after it, milliseconds.
const KEPT_BEFORE_MS = 3000;
const KEPT_AFTER_MS = 2000;
// What comes back at once of a ball that was heard: back and down before it, and some of what follows.
const SHOWN_BEFORE_MS = 1900;
const SHOWN_AFTER_MS = 650;
const APART_MS = 3000; // nobody strikes two balls within so long: what is found by two ways within it is one
// A hand that says so is later than the strike by about so much; common practice, no source.
const HAND_LATE_MS = 600;
const HEARD_NEAR_MS = 350; // from where it moves fastest to where it sounds
// About a strike that is heard somebody swings in the picture, else it was the neighbour's ball: more than one
// picture moves, and by more than noise does.
const LEAST_MOTION = 6;
const LEAST_MOVING = 4;

export type StruckBy = "sound" | "motion" | "hand";

/** A ball that was struck, as one camera saw it. */
export interface Struck {
  at: number; // milliseconds, as Date.now
  clip: File;
  inClip: number; // seconds from its first picture
  by: StruckBy;
  camera: number;
}

/** A swing as one camera saw it. */
export interface Shown {
  clip: File;
  camera: number;
}

interface Told {
  swing: (shown: Shown[], at: number) => void; // as soon as it is over, of every camera
  whole?: (struck: Struck) => void; // once all that is kept of it was seen
  trouble: (error: Error) => void;
}

export interface Watch {
  stop: () => void;
  now: () => void; // a hand says that a ball was just struck
  hear: (sound: LastSound | null) => void; // what is heard of the room from now on, if it is
  begun: Promise<unknown>; // every camera has seen a picture
}

/** Looks at live pictures for swings until it is told to stop; what it keeps meanwhile is the last seconds only. */
export async function watch(videos: HTMLVideoElement[], told: Told): Promise<Watch> {
  let count = 0;
  let over = false;
  let struck = Number.NEGATIVE_INFINITY;
  let eyes: Eye[] = [];
  let sound: LastSound | null = null;
  const heard: number[] = []; // strikes that may be of this player's ball
  const pending = new Map<number, { timer: number; ending: () => Promise<void> }>(); // not whole yet
  const trouble = (error: Error) => {
    if (!over) told.trouble(error);
  };
  const heardNear = (top: number) => heard.find((each) => Math.abs(each - top) < HEARD_NEAR_MS);
  const keep = async (number: number, found: number, at: number, foundBy: StruckBy) => {
    // A busy machine may hear a ball later than it sees that it was struck.
    const late = foundBy === "motion" ? heardNear(found) : undefined;
    const top = late ?? found;
    const by = late === undefined ? foundBy : "sound";
    const [from, to] = [top - KEPT_BEFORE_MS, top + KEPT_AFTER_MS];
    const audible = sound?.cut(from - 1000, to) ?? null; // a clip begins at a key picture before
    for (const [camera, eye] of eyes.entries()) {
      const kept = await eye.cut(from, to, `try-${number}`, audible);
      if (kept) told.whole?.({ at, clip: kept.clip, inClip: top / 1000 - kept.from / 1e6, by, camera });
    }
    pending.delete(number);
  };
  const swung = ({ from, top, to }: Found, by: StruckBy) => {
    if (top - struck < APART_MS) return;
    struck = top;
    count += 1;
    const number = count;
    const at = Math.round(Date.now() - (performance.now() - top));
    Promise.all(eyes.map((eye) => eye.cut(from, to, `swing-${number}`, null)))
      .then((cuts) => {
        const shown = cuts.flatMap((cut, camera) => (cut ? { clip: cut.clip, camera } : []));
        if (shown.length > 0 && !over) told.swing(shown, at);
      })
      .catch(trouble);
    if (!told.whole) return;
    const wait = top + KEPT_AFTER_MS - performance.now();
    const ending = () => keep(number, top, at, by);
    const timer = window.setTimeout(() => ending().catch(trouble), wait);
    pending.set(number, { timer, ending });
  };
  const moved = (found: Found) => {
    const strike = heardNear(found.top);
    if (strike === undefined) swung(found, "motion");
    else swung({ ...found, top: strike }, "sound");
  };
  const sounded = (at: number) => {
    heard.push(at);
    if (heard.length > 8) heard.shift();
    const later = at + SHOWN_AFTER_MS;
    window.setTimeout(() => {
      const swings = eyes.some(
        (eye) => eye.moving(at - HEARD_NEAR_MS, at + HEARD_NEAR_MS, LEAST_MOTION) >= LEAST_MOVING,
      );
      if (swings && !over) swung({ from: at - SHOWN_BEFORE_MS, top: at, to: later }, "sound");
    }, later - performance.now());
  };
  eyes = await Promise.all(videos.map((video) => Eye.open(video, { swing: moved, trouble })));
  return {
    stop: () => {
      over = true;
      for (const eye of eyes) eye.stop();
      if (sound) sound.struck = () => undefined;
      // What was swung before is kept as far as it was seen.
      const ending = [...pending.values()].map(({ timer, ending }) => {
        window.clearTimeout(timer);
        return ending();
      });
      void Promise.allSettled(ending).then(() => {
        for (const eye of eyes) eye.close();
      });
    },
    hear: (room) => {
      sound = room;
      if (sound) sound.struck = sounded;
    },
    begun: Promise.all(eyes.map(({ begun }) => begun)),
    now: () => {
      const to = Math.max(...eyes.map(({ latest }) => latest));
      const top = to - HAND_LATE_MS;
      if (to > 0) swung({ from: top - KEPT_BEFORE_MS / 2, top, to }, "hand");
    },
  };
}
