/** What lies on a floor is at least and at most so long, metres. */
export const LONGEST_M = { least: 0.05, most: 20 };
