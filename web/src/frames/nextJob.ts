const CHUNK = 4;

interface Standing {
  wanted: number;
  direction: 1 | -1;
  resting: boolean; // nothing is decoded ahead
  has: (frame: number) => boolean;
  count: number;
  reach: number; // so far ahead of the wanted frame
  small: number | undefined; // a frame of which a small picture is asked for
}

export interface NextJob {
  first: number;
  last: number;
  small: boolean;
}

/** What to decode next: the wanted frame alone, then a small picture, then a chunk ahead in the way of stepping. */
export function nextJob(standing: Standing): NextJob | undefined {
  const { wanted, direction, resting, has, count, reach, small } = standing;
  if (!has(wanted)) return { first: wanted, last: wanted, small: false };
  if (small !== undefined) return { first: small, last: small, small: true };
  if (resting) return undefined;
  for (let step = 1; step <= reach - CHUNK; step++) {
    const frame = wanted + step * direction;
    if (frame < 0 || frame >= count) return undefined;
    if (!has(frame)) {
      const far = frame + (CHUNK - 1) * direction;
      return {
        first: Math.max(0, Math.min(frame, far)),
        last: Math.min(count - 1, Math.max(frame, far)),
        small: false,
      };
    }
  }
}
