import { SCREENS } from './screens';

/** Longest wait for a moment in which a browser has nothing else to do, in ms; so long waits one that cannot tell. */
const WAIT_MS = 5000;

function fetchScreens(): void {
  // What cannot be fetched now is asked for again when it is needed.
  for (const { load } of SCREENS) void load().catch(() => undefined);
}

/** Fetches what all screens need once a browser has nothing else to do, so that going from one to the next waits for nothing. */
export function fetchAhead(): void {
  // Not every browser tells when it is idle.
  if ('requestIdleCallback' in window) requestIdleCallback(fetchScreens, { timeout: WAIT_MS });
  else setTimeout(fetchScreens, WAIT_MS);
}
