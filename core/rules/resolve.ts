import type { Combination } from '../space/space';
import type { TokenSet } from '../tokens/token-set';
import { Specimen } from './specimen';
import type { Component, Rule } from './component';
import { slotsOf, type Slot, type Speaker } from './slots';

/** One rule's word on a property. */
export interface TrailEntry {
  readonly rule: string;
  readonly text: string;
}

/** A property of a part in one combination. */
export interface Outcome {
  /** Settled form, see `settled-value`; empty when the value cannot be resolved. */
  readonly value: string;
  /** Path of the token, when the value is just that. */
  readonly token?: string;
  /** The rule that had the last word. */
  readonly rule: string;
  /** All that spoke, in order. */
  readonly trail: readonly TrailEntry[];
}

/** Part, then property. Only what some rule sets. */
export type Outcomes = Readonly<Record<string, Readonly<Record<string, Outcome>>>>;

export interface Resolution {
  /** After the limits. */
  readonly combination: Combination;
  readonly parts: Outcomes;
}

export interface Surroundings {
  readonly tokens: TokenSet;
  /** CSS px per rem. */
  readonly rootFontSize: number;
}

/** How one combination looks, and why. Unnamed axes stand at rest or default. */
export function resolve(component: Component, combination: Combination, around: Surroundings): Resolution {
  return resolverFor(component, around).resolve(combination);
}

const resolvers = new WeakMap<Component, WeakMap<TokenSet, Resolver>>();

/** The resolver of a component in a context; the same for all who ask, so that they share its work. */
export function resolverFor(component: Component, around: Surroundings): Resolver {
  let own = resolvers.get(component);
  if (!own) resolvers.set(component, (own = new WeakMap()));
  let resolver = own.get(around.tokens);
  if (resolver?.around.rootFontSize !== around.rootFontSize) {
    own.set(around.tokens, (resolver = new Resolver(component, around)));
  }
  return resolver;
}

/** Outcomes of so many different specimens are kept. */
const MAX_KEPT = 10_000;

/**
 * Resolves many combinations of one component in one context. Which rules speak is found by intersecting, axis by axis,
 * the sets of rules that admit the value there, 32 rules at a time; combinations in which the same rules speak look the
 * same and are worked out once, and so is each property under the same words.
 */
export class Resolver {
  private readonly slots: readonly Slot[];
  /** Per axis and value: bit sets of the rules whose region admits the value. */
  private readonly admitted: readonly (readonly Uint32Array[])[];
  private readonly places: ReadonlyMap<Rule, number>;
  private readonly bySpeakers = new Map<string, Outcomes>();
  private readonly known: readonly Map<number, Outcome>[];

  constructor(
    private readonly component: Component,
    readonly around: Surroundings,
  ) {
    const { rules, space } = component;
    this.slots = [...slotsOf(component).values()];
    this.places = new Map(rules.map((rule, place) => [rule, place]));
    this.known = this.slots.map(() => new Map());
    this.admitted = space.axes.map((axis, index) =>
      axis.values.map((_, value) => bitSet(rules, rule => ((rule.region[index]! >> value) & 1) === 1)),
    );
  }

  resolve(combination: Combination): Resolution {
    const { space } = this.component;
    const settled = space.settled(space.indices(combination)).combination;
    return { combination: space.written(settled), parts: this.outcomes(settled) };
  }

  /** Outcomes of an allowed combination (value indices). */
  outcomes(settled: readonly number[]): Outcomes {
    const speaking = this.speaking(settled);
    const key = speaking.join();
    let outcomes = this.bySpeakers.get(key);
    if (!outcomes) {
      if (this.bySpeakers.size >= MAX_KEPT) this.bySpeakers.clear();
      outcomes = this.workOut(speaking);
      this.bySpeakers.set(key, outcomes);
    }
    return outcomes;
  }

  private speaking(settled: readonly number[]): Uint32Array {
    const speaking = bitSet(this.component.rules, () => true);
    settled.forEach((value, axis) => {
      const admitted = this.admitted[axis]![value]!;
      for (let word = 0; word < speaking.length; word++) speaking[word]! &= admitted[word]!;
    });
    return speaking;
  }

  private workOut(speaking: Uint32Array): Outcomes {
    const speaks = ({ rule }: Speaker): boolean => {
      const place = this.places.get(rule)!;
      return ((speaking[place >> 5]! >>> (place & 31)) & 1) === 1;
    };
    const trails = new Map<string, readonly Speaker[]>();
    this.slots.forEach(({ name, speakers }) => {
      const trail = speakers.filter(speaks);
      if (trail.some(({ direct }) => direct)) trails.set(name, trail);
    });
    const specimen = new Specimen(this.component, trails, this.around);
    const parts: Record<string, Record<string, Outcome>> = {};
    this.slots.forEach((slot, index) => {
      const trail = trails.get(slot.name);
      if (trail) (parts[slot.part] ??= {})[slot.property.name] = this.outcome(slot, index, trail, specimen);
    });
    return parts;
  }

  private outcome(slot: Slot, index: number, trail: readonly Speaker[], specimen: Specimen): Outcome {
    // What a calculation comes to may depend on other properties; anything else on the words alone.
    if (trail.at(-1)!.setting.value.kind === 'calc' || slot.speakers.length > 50)
      return specimen.outcome(slot);
    const key = trail.reduce((sum, speaker) => sum + 2 ** slot.speakers.indexOf(speaker), 0);
    let outcome = this.known[index]!.get(key);
    if (!outcome) this.known[index]!.set(key, (outcome = specimen.outcome(slot)));
    return outcome;
  }
}

function bitSet(rules: readonly Rule[], holds: (rule: Rule) => boolean): Uint32Array {
  const set = new Uint32Array(Math.ceil(rules.length / 32));
  rules.forEach((rule, place) => {
    if (holds(rule)) set[place >> 5]! |= 1 << (place & 31);
  });
  return set;
}
