import type { Extent } from './node-store';

/** So many results are remembered at first and at most. */
const SMALLEST = 2 ** 11;
const LARGEST = 2 ** 20;
const NUMBERS_A_RESULT = 3;

export const UNKNOWN = -1;

/**
 * Results of an operation on two extents. Each pair has one place, where a later pair may displace it: forgetting costs only
 * time, and looking up costs one comparison (K. S. Brace, R. L. Rudell, R. E. Bryant, "Efficient Implementation of a BDD
 * Package", 1990).
 */
export class ResultCache {
  /** First extent (0 where nothing is remembered), second and result, place by place. */
  private places = new Int32Array(SMALLEST * NUMBERS_A_RESULT);
  private mask = SMALLEST - 1;
  private taken = 0;

  /** The result for two extents, the first not `NOWHERE`; `UNKNOWN` when it is not remembered. */
  get(a: Extent, b: Extent): Extent {
    const place = this.placeOf(a, b);
    return this.places[place] === a && this.places[place + 1] === b ? this.places[place + 2]! : UNKNOWN;
  }

  set(a: Extent, b: Extent, result: Extent): void {
    if (this.taken * 2 > this.mask && this.mask < LARGEST - 1) this.grow();
    const place = this.placeOf(a, b);
    if (this.places[place] === 0) this.taken++;
    this.places[place] = a;
    this.places[place + 1] = b;
    this.places[place + 2] = result;
  }

  private placeOf(a: Extent, b: Extent): number {
    const hash = Math.imul(a, 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b);
    return ((hash ^ (hash >>> 15)) & this.mask) * NUMBERS_A_RESULT;
  }

  private grow(): void {
    const before = this.places;
    this.mask = this.mask * 2 + 1;
    this.places = new Int32Array((this.mask + 1) * NUMBERS_A_RESULT);
    this.taken = 0;
    for (let place = 0; place < before.length; place += NUMBERS_A_RESULT) {
      if (before[place] !== 0) this.set(before[place]!, before[place + 1]!, before[place + 2]!);
    }
  }
}
