import { setTimeout } from 'node:timers/promises';
import { LRUCache } from 'lru-cache';

/**
 * Where others write the same system through another node of a cluster, of two transactions at one moment one is undone. Whoever was quicker
 * pauses before the next one, so that the other comes through: none of them hears of the other in any other way.
 */

/** After so long nobody else is thought to write. */
const RIVAL_MS = 5_000;
const MOST_PAUSE_MS = 300;

interface Writing {
  /** Number of the last edit written here. */
  readonly last: number;
  /** When another was found to have written last. */
  readonly rivalAt: number;
}

const known = new LRUCache<string, Writing>({ max: 1000 });

/** Notes the number of the last edit that whoever is to write finds: it may be another's. */
export function noteFound(systemId: string, lastEdit: number): void {
  const writing = known.get(systemId);
  if (writing && writing.last !== lastEdit)
    known.set(systemId, { last: lastEdit, rivalAt: performance.now() });
}

/** Notes the number of the last edit written here. */
export function noteWritten(systemId: string, last: number): void {
  const { rivalAt = -Infinity } = known.get(systemId) ?? {};
  known.set(systemId, { last, rivalAt });
}

/** Pauses for about as long as others need who do the same as what took us so long, if there are any. */
export async function givenWay(systemId: string, ms: number): Promise<void> {
  const { rivalAt = -Infinity } = known.get(systemId) ?? {};
  if (performance.now() - rivalAt < RIVAL_MS)
    await setTimeout(Math.min(Math.random() * 2 * ms, MOST_PAUSE_MS));
}
