/**
 * A surveyor's mark about the origin: a fine cross whose middle stays open, so that the very point is seen. Strokes
 * run from `gap` to `reach`, in stage px from the point; a broken one has a hole in each stroke.
 */
export function cross(gap: number, reach: number, broken = false): string {
  const hole = (reach - gap) / 4;
  const middle = (gap + reach) / 2;
  const stretches = broken
    ? [
        [gap, middle - hole],
        [middle + hole, reach],
      ]
    : [[gap, reach]];
  return stretches
    .map(([from = 0, to = 0]) => `M${from} 0H${to}M${-from} 0H${-to}M0 ${from}V${to}M0 ${-from}V${-to}`)
    .join("");
}

/** Four corners of a square about the origin: as far off as a proposed mark may be. */
export function corners(far: number): string {
  const leg = Math.min(far * 0.6, 6);
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ]
    .map(
      ([right = 1, down = 1]) => `M${right * far} ${down * (far - leg)}V${down * far}H${right * (far - leg)}`,
    )
    .join("");
}
