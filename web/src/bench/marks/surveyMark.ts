/**
 * A surveyor's mark: a fine cross whose middle stays open, so that the very point is seen. Strokes run from `gap` to
 * `reach`, in stage px from the point; a broken one has a hole in each stroke.
 */
export function cross(x: number, y: number, gap: number, reach: number, broken = false): string {
  const hole = (reach - gap) / 4;
  const middle = (gap + reach) / 2;
  const stretches = broken
    ? [
        [gap, middle - hole],
        [middle + hole, reach],
      ]
    : [[gap, reach]];
  return stretches
    .map(
      ([from = 0, to = 0]) =>
        `M${x + from} ${y}H${x + to}M${x - from} ${y}H${x - to}M${x} ${y + from}V${y + to}M${x} ${y - from}V${y - to}`,
    )
    .join("");
}

/** Four corners of a square about a point: as far off as a proposed mark may be. */
export function corners(x: number, y: number, far: number): string {
  const leg = Math.min(far * 0.6, 6);
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ]
    .map(
      ([right = 1, down = 1]) =>
        `M${x + right * far} ${y + down * (far - leg)}V${y + down * far}H${x + right * (far - leg)}`,
    )
    .join("");
}
