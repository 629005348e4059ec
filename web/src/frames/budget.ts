const MB = 1024 * 1024;
const MOST_BYTES = 320 * MB;
const LEAST_BYTES = 96 * MB;
const MIN_FRAMES = 24;

const holders = new Set<object>();

/** Decoded pictures of all open clips share one amount of memory: a share of what the device has. */
export function totalBytes(deviceGb: number): number {
  return Math.min(MOST_BYTES, Math.max(LEAST_BYTES, deviceGb * 40 * MB));
}

/** How many pictures of a size one of the open clips may hold. */
export function mayHold(bytesEach: number): number {
  const memory = (navigator as { deviceMemory?: number }).deviceMemory ?? 8;
  return Math.max(MIN_FRAMES, Math.floor(totalBytes(memory) / Math.max(1, holders.size) / bytesEach));
}

export function holds(store: object): void {
  holders.add(store);
}

export function letsGo(store: object): void {
  holders.delete(store);
}
