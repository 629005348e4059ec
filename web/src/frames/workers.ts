import clipWorkerUrl from "./clip.worker?worker&url";
import type { Asked } from "./messages";

/** The script of the workers, for who keeps it for later. */
export { clipWorkerUrl };

const ready: Worker[] = [];

function started(): Worker {
  const worker = new Worker(clipWorkerUrl, { type: "module" });
  // One that could not be loaded while it waited is of no use to anybody.
  worker.addEventListener("error", () => {
    const place = ready.indexOf(worker);
    if (place >= 0) ready.splice(place, 1);
  });
  return worker;
}

/** Start workers before a clip asks for one: they take a while to begin. Without a decoder nobody will ask. */
export function haveReady(count: number): void {
  if (!("VideoDecoder" in window)) return;
  while (ready.length < count) ready.push(started());
}

/** A worker for one clip, the one that waited longest; whoever took it ends it. */
export function takeWorker(): Worker {
  return ready.shift() ?? started();
}

export function ask(worker: Worker, asked: Asked): void {
  worker.postMessage(asked);
}
