const DELAYS_MS = [500, 1000, 2000, 4000, 8000];

/** How long to wait after a number of failures in a row, in ms: longer each time, and no two windows the same. */
export function backOff(failures: number, random: () => number = Math.random): number {
  const delay = DELAYS_MS[Math.min(Math.max(failures, 1), DELAYS_MS.length) - 1]!;
  return delay * (0.75 + 0.5 * random());
}
