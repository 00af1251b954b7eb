import { readlinkSync } from 'node:fs';
import { setPriority } from 'node:os';

/** Between what everything has and the least there is: others come first, but it goes on. */
const BEHIND_OTHERS = 10;

/** Has this thread leave the processors to others where all want them, as far as the system knows of threads (Linux). */
export function giveWayToOthers(): void {
  try {
    const thread = /\/task\/(\d+)$/.exec(readlinkSync('/proc/thread-self'));
    if (thread) setPriority(Number(thread[1]), BEHIND_OTHERS);
  } catch {
    // Elsewhere all threads are alike.
  }
}
