/** Within this time the first script of a window that is loaded again runs, and then its screen stands. */
const RELOAD_MS = 3000;

const inTab = (systemId: string): string => `periwinkle:left:${systemId}`;
const inBrowser = (systemId: string): string => `periwinkle:left-at:${systemId}`;

/** What a browser without storage answers, which tells reloads from closed windows nowhere. */
function orElse<T>(ask: () => T, otherwise: T): T {
  try {
    return ask();
  } catch {
    return otherwise;
  }
}

/** Notes that a window leaves its page: to be loaded again, to go elsewhere, or to be closed. */
export const noteLeft = (systemId: string, window: string): void =>
  orElse(() => {
    sessionStorage.setItem(inTab(systemId), window);
    waitFor(systemId);
  }, undefined);

/** Has other windows wait from now on. */
const waitFor = (systemId: string): void => localStorage.setItem(inBrowser(systemId), String(Date.now()));

/**
 * Notes, before the screen of a window that is loaded again has come, that it is on its way: a slow network or a busy machine would
 * otherwise make it a closed one to the others.
 */
export const noteReturning = (systemId: string): void =>
  orElse(() => {
    if (sessionStorage.getItem(inTab(systemId)) !== null) waitFor(systemId);
  }, undefined);

/** The window that was left last in this tab, whose page this one follows; told once. */
export const leftHere = (systemId: string): string | null =>
  orElse(() => {
    const window = sessionStorage.getItem(inTab(systemId));
    sessionStorage.removeItem(inTab(systemId));
    return window;
  }, null);

/** How long a window of this browser may still be on its way to be there again, in milliseconds. */
export const reloadingFor = (systemId: string): number =>
  orElse(() => {
    const rest = Number(localStorage.getItem(inBrowser(systemId)) ?? 0) + RELOAD_MS - Date.now();
    return Math.min(Math.max(rest, 0), RELOAD_MS);
  }, 0);
