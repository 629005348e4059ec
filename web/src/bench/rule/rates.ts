/** Shares of real time at which a swing is played. */
export const RATES = [1, 1 / 2, 1 / 4, 1 / 8, 1 / 16];

/** A rate as it is said: 1/4. */
export function rateWords(rate: number): string {
  return rate === 1 ? "1/1" : `1/${Math.round(1 / rate)}`;
}
