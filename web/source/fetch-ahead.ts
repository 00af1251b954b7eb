import { SCREENS } from './screens';

/** Fetches what all screens need once a browser has nothing else to do, so that going from one to the next waits for nothing. */
export function fetchAhead(): void {
  requestIdleCallback(
    () => {
      // What cannot be fetched now is asked for again when it is needed.
      for (const { load } of SCREENS) void load().catch(() => undefined);
    },
    { timeout: 5000 },
  );
}
