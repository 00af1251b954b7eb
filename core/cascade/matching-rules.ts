import type { Component, Rule } from '../components/component';
import type { Extent } from '../space/extent';
import type { Space } from '../space/space';

/** Rules as bits, 32 a word. */
export type RuleBits = Uint32Array;

/**
 * Which rules speak in a combination: per axis and value the set of rules that admit the value there, intersected axis by axis,
 * 32 rules at a time. Nested rules speak in no box, and are asked one by one where the box around them admits the combination.
 */
export class MatchingRules {
  private readonly places: ReadonlyMap<Rule, number>;
  private readonly admitted: readonly (readonly RuleBits[])[];
  /** Nested rules with their places. */
  private readonly boxless: readonly { readonly place: number; readonly extent: Extent }[];
  private readonly space: Space;

  constructor({ rules, space }: Component) {
    this.space = space;
    this.boxless = rules.flatMap(({ extent }, place) => (extent === undefined ? [] : [{ place, extent }]));
    this.places = new Map(rules.map((rule, place) => [rule, place]));
    this.admitted = space.axes.map((axis, index) =>
      axis.values.map((_, value) => bitsOf(rules, rule => ((rule.region[index]! >> value) & 1) === 1)),
    );
  }

  /** The rules that speak in a combination (value indices). */
  at(indices: readonly number[]): RuleBits {
    const speaking = new Uint32Array(Math.ceil(this.places.size / 32)).fill(0xffffffff);
    this.admitted.forEach((values, axis) => {
      const admitted = values[indices[axis]!]!;
      for (let word = 0; word < speaking.length; word++) speaking[word]! &= admitted[word]!;
    });
    if (this.boxless.length > 0) this.leaveOut(speaking, this.space.complete(indices));
    return speaking;
  }

  private leaveOut(speaking: RuleBits, indices: readonly number[]): void {
    const { extents } = this.space;
    for (const { place, extent } of this.boxless) {
      const word = place >> 5;
      const bit = 1 << (place & 31);
      if ((speaking[word]! & bit) !== 0 && !extents.has(extent, indices)) speaking[word]! &= ~bit;
    }
  }

  has(speaking: RuleBits, rule: Rule): boolean {
    const place = this.places.get(rule)!;
    return ((speaking[place >> 5]! >>> (place & 31)) & 1) === 1;
  }
}

function bitsOf(rules: readonly Rule[], holds: (rule: Rule) => boolean): RuleBits {
  const set = new Uint32Array(Math.ceil(rules.length / 32));
  rules.forEach((rule, place) => {
    if (holds(rule)) set[place >> 5]! |= 1 << (place & 31);
  });
  return set;
}
