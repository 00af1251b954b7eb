import { LRUCache } from 'lru-cache';

/** A small request that is computed for so long holds up others. */
const SLOW_MS = 150;
/** So many more of them than quick ones, and their system is slow; it is not remembered further than so many. */
const SLOW_FROM = 3;
const SLOWEST = 10;

/** Which systems are slow to work on, by what small requests on them took lately. */
export class SlowSystems {
  private readonly scores = new LRUCache<string, number>({ max: 1000 });

  isSlow(systemId: string): boolean {
    return this.scoreOf(systemId) >= SLOW_FROM;
  }

  /** Takes note of a small request that was computed for so long. */
  tell(systemId: string, ms: number): void {
    const score = this.scoreOf(systemId) + (ms > SLOW_MS ? 1 : -1);
    this.scores.set(systemId, Math.min(SLOWEST, Math.max(0, score)));
  }

  mark(systemId: string): void {
    this.scores.set(systemId, SLOWEST);
  }

  private scoreOf(systemId: string): number {
    return this.scores.get(systemId) ?? 0;
  }
}
