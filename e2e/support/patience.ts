/** How long tests wait, in ms: long enough for a machine with much else to do. What is awaited is the condition, never the time. */

/** For one thing to come about on a page. */
export const PATIENCE = 60_000;

/** For a whole test. */
export const TIMEOUT = 300_000;
