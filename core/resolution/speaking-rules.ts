import type { Component, Rule } from '../components/component';

/** Rules as bits, 32 a word. */
export type RuleBits = Uint32Array;

/**
 * Which rules speak in a combination: per axis and value the set of rules that admit the value there, intersected axis by axis,
 * 32 rules at a time.
 */
export class SpeakingRules {
  private readonly places: ReadonlyMap<Rule, number>;
  private readonly admitted: readonly (readonly RuleBits[])[];

  constructor({ rules, space }: Component) {
    this.places = new Map(rules.map((rule, place) => [rule, place]));
    this.admitted = space.axes.map((axis, index) =>
      axis.values.map((_, value) => bitsOf(rules, rule => ((rule.region[index]! >> value) & 1) === 1)),
    );
  }

  /** The rules that speak in a combination (value indices). */
  at(indices: readonly number[]): RuleBits {
    const speaking = new Uint32Array(Math.ceil(this.places.size / 32)).fill(0xffffffff);
    indices.forEach((value, axis) => {
      const admitted = this.admitted[axis]![value]!;
      for (let word = 0; word < speaking.length; word++) speaking[word]! &= admitted[word]!;
    });
    return speaking;
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
