import { AsyncLocalStorage } from 'node:async_hooks';

/**
 * What a thread and whoever watches it share: the number of what is being computed, 0 between, and the request it is for, 0 where it is for
 * several.
 */
export type Watched = Int32Array;
export const watchedMemory = (): Watched => new Int32Array(new SharedArrayBuffer(8));

interface Request {
  readonly id: number;
  /** Whether it is done where it keeps nobody waiting. */
  readonly isHeavy: boolean;
  /** What it has read so far that others have to wait for, in letters. */
  letters: number;
  /** What it has been computed for, in milliseconds. */
  ms: number;
}

/** For whom something is done: a request, or several together. */
export type Requests = readonly Request[];

const current = new AsyncLocalStorage<Requests>();
let watched: Watched | null = null;
let count = 0;

/** Has all that is computed in this thread from now on be seen by whoever shares the memory. */
export function watchedBy(memory: Watched): void {
  watched = memory;
}

/** Does the work of a request, and tells how long it computed, whatever came of it. */
export async function forRequest<T>(
  id: number,
  isHeavy: boolean,
  work: () => Promise<T>,
): Promise<{ readonly outcome: PromiseSettledResult<T>; readonly ms: number }> {
  const request = { id, isHeavy, letters: 0, ms: 0 };
  const [outcome] = await Promise.allSettled([onBehalfOf([request], work)]);
  return { outcome, ms: request.ms };
}

/** For whom something is done here. */
export const requestsHere = (): Requests => current.getStore() ?? [];

/** Does work that others asked for than who happens to be at work. */
export const onBehalfOf = <T>(requests: Requests, work: () => T): T => current.run(requests, work);

/** A request that is small turns out to be heavy, or its system: it is to be done where it keeps nobody waiting. Nothing has been done. */
export class TooHeavy extends Error {
  constructor(readonly what: 'request' | 'system') {
    super(`The ${what} is heavy.`);
  }
}

/** So many letters are read for a request that others wait for. */
const LIGHT_LETTERS = 600_000;

/** Call before so much is read, of a system or for this request alone. Throws `TooHeavy` where small requests would have to wait for it. */
export function reading(letters: number, what: TooHeavy['what']): void {
  for (const request of requestsHere()) {
    request.letters += letters;
    if (!request.isHeavy && request.letters > LIGHT_LETTERS) throw new TooHeavy(what);
  }
}

/** Work that may take long: whoever watches the thread knows which request it is for, and ends the thread where it takes too long. */
export function computing<T>(work: () => T): T {
  const requests = requestsHere();
  if (!watched || requests.length === 0 || watched[0] !== 0) return work();
  const began = performance.now();
  Atomics.store(watched, 1, requests.length === 1 ? requests[0]!.id : 0);
  Atomics.store(watched, 0, ++count);
  try {
    return work();
  } finally {
    Atomics.store(watched, 0, 0);
    const each = (performance.now() - began) / requests.length;
    for (const request of requests) request.ms += each;
  }
}
