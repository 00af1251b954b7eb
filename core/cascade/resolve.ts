import type { Component } from '../components/component';
import { ObjectMemo } from '../json/object-memo';
import type { Combination } from '../space/space';
import type { ValueContext } from '../css/value-context';
import { combinationOfCopy, copiesIn, valueWithin, withoutCopies } from '../components/nesting/nested-names';
import type { Outcome, Outcomes, Resolution } from './outcome';
import { slotsOf, type Slot, type SlotRule } from './slots';
import { MatchingRules } from './matching-rules';
import { Specimen } from './specimen';

/** How one combination looks, and why. Unnamed axes stand at rest or default. */
export function resolve(component: Component, combination: Combination, context: ValueContext): Resolution {
  return resolverFor(component, context).resolve(combination);
}

/** By root font size. */
const resolvers = new ObjectMemo<Map<number, CombinationResolver>>();

/** The resolver of a component in a context; the same for all who ask, as long as anatomy, rules and tokens are the same. */
export function resolverFor(component: Component, context: ValueContext): CombinationResolver {
  const { anatomy, rules } = component;
  const own = resolvers.of([rules, anatomy, context.tokens], () => new Map<number, CombinationResolver>());
  let resolver = own.get(context.rootFontSize);
  if (!resolver) own.set(context.rootFontSize, (resolver = new CombinationResolver(component, context)));
  return resolver;
}

/** Outcomes of so many different specimens are kept. */
const MAX_KEPT = 10_000;

/** Outcomes under one set of speakers are told apart by a number as long as it has so many bits. */
const MAX_TOLD_APART = 50;

/**
 * Resolves many combinations of one component in one context. Combinations in which the same rules speak look the same and are
 * worked out once, and so is each property under the same words.
 */
export class CombinationResolver {
  private readonly slots: readonly Slot[];
  private readonly rules: MatchingRules;
  private readonly bySpeakers = new Map<string, Outcomes>();
  private readonly known: readonly Map<number, Outcome>[];

  constructor(
    private readonly component: Component,
    private readonly context: ValueContext,
  ) {
    this.slots = slotsOf(component).all;
    this.rules = new MatchingRules(component);
    this.known = this.slots.map(() => new Map());
  }

  /** Free axes of nested components stand in the result where they were given, and copies where something was said of them. */
  resolve(combination: Combination): Resolution {
    const copies = this.component.nested.length === 0 ? [] : copiesIn(combination);
    const plain = copies.length === 0 ? combination : combinationOfCopy(combination, '');
    const settled = this.settled(plain);
    const resolution = {
      combination: { ...this.component.space.written(settled), ...this.given(combination) },
      parts: this.outcomes(settled),
    };
    if (copies.length === 0) return resolution;
    return { ...resolution, parts: { ...resolution.parts, ...this.partsOfCopies(combination, copies) } };
  }

  private settled(combination: Combination): readonly number[] {
    const { space } = this.component;
    return space.settled(space.indices(combination)).combination;
  }

  /** What a combination says of nested components, after their limits. */
  private given(combination: Combination): Combination {
    const said: Record<string, string> = {};
    for (const name of Object.keys(combination)) {
      if (!name.includes('/')) continue;
      const copy = copiesIn({ [name]: '' }).at(-1) ?? '';
      const within = this.settled(combinationOfCopy(combination, copy));
      const value = valueWithin(this.component, within, withoutCopies(name));
      if (value !== null) said[name] = value;
    }
    return said;
  }

  private partsOfCopies(combination: Combination, copies: readonly string[]): Outcomes {
    const parts: Record<string, Outcomes[string]> = {};
    for (const copy of copies) {
      const all = withoutCopies(`${copy}/`);
      const outcomes = this.outcomes(this.settled(combinationOfCopy(combination, copy)));
      for (const [name, own] of Object.entries(outcomes))
        if (name.startsWith(all)) parts[`${copy}/${name.slice(all.length)}`] = own;
    }
    return parts;
  }

  /** Outcomes of an allowed combination (value indices). */
  outcomes(settled: readonly number[]): Outcomes {
    const speaking = this.rules.at(settled);
    const key = speaking.join();
    let outcomes = this.bySpeakers.get(key);
    if (!outcomes) {
      if (this.bySpeakers.size >= MAX_KEPT) this.bySpeakers.clear();
      outcomes = this.workOut(({ rule }) => this.rules.has(speaking, rule));
      this.bySpeakers.set(key, outcomes);
    }
    return outcomes;
  }

  private workOut(speaks: (speaker: SlotRule) => boolean): Outcomes {
    const specimen = new Specimen(this.component, speaks, this.context);
    const parts: Record<string, Record<string, Outcome>> = {};
    this.slots.forEach((slot, index) => {
      const trail = slot.speakers.filter(speaks);
      if (!trail.some(({ direct }) => direct)) return;
      (parts[slot.part.name] ??= {})[slot.property.name] = this.outcome(slot, index, trail, specimen);
    });
    return parts;
  }

  private outcome(slot: Slot, index: number, trail: readonly SlotRule[], specimen: Specimen): Outcome {
    // What a calculation comes to may depend on other properties; anything else on the words alone.
    if (trail.at(-1)!.setting.value.kind === 'calc' || slot.speakers.length > MAX_TOLD_APART)
      return specimen.outcome(slot, trail);
    const key = trail.reduce((sum, speaker) => sum + 2 ** slot.speakers.indexOf(speaker), 0);
    let outcome = this.known[index]!.get(key);
    if (!outcome) this.known[index]!.set(key, (outcome = specimen.outcome(slot, trail)));
    return outcome;
  }
}
