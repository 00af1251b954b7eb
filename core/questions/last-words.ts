import type { Component, Rule } from '../rules/component';
import { slotsOf, type Slot, type Speaker } from '../rules/slots';
import { NOWHERE, type Extent, type Extents } from '../space/extent';
import { TangledSets } from '../space/node-store';
import { kept } from './kept';

/** The rules for one property overlap in more ways than can be worked out. */
export class TangledRules extends Error {
  constructor(readonly slot: Slot) {
    super(
      `The ${slot.speakers.length} rules for ${slot.name} overlap in more ways than can be worked out; ` +
        'where many of them name several axes each, let fewer do so.',
    );
    this.name = 'TangledRules';
  }
}

/**
 * Where each speaker of a slot has the last word: its region without the regions of all later speakers; in the slot's
 * order. These extents are disjoint. Limits are left out of account, so that nothing depends on axes that no rule names. A
 * side's slot is there only where a rule names that side. Costs one union and one difference a speaker. Throws
 * `TangledRules`.
 */
export function rawWords(component: Component, slot: Slot): readonly Extent[] {
  const { extents } = component.space;
  return kept(component.space, `raw words ${slot.name}`, inputsOf(slot), () =>
    toldOf(slot, () => wordsOf(slot.speakers, extents)),
  );
}

function toldOf<Answer>(slot: Slot, compute: () => Answer): Answer {
  try {
    return compute();
  } catch (error) {
    throw error instanceof TangledSets ? new TangledRules(slot) : error;
  }
}

function wordsOf(speakers: readonly Speaker[], extents: Extents): Extent[] {
  const named = extents.union(
    speakers.filter(({ direct }) => direct).map(({ rule }) => extents.of(rule.region)),
  );
  const words: Extent[] = [];
  let later: Extent = NOWHERE;
  for (let place = speakers.length - 1; place >= 0; place--) {
    const region = extents.of(speakers[place]!.rule.region);
    words.unshift(extents.minus(extents.and(named, region), later));
    later = extents.or(later, region);
  }
  return words;
}

/** The same as far as the limits allow: the combinations that can be. */
export function lastWords(component: Component, slot: Slot): readonly Extent[] {
  const { extents, allowed } = component.space;
  return kept(component.space, `last words ${slot.name}`, inputsOf(slot), () =>
    toldOf(slot, () => rawWords(component, slot).map(where => extents.and(where, allowed))),
  );
}

const inputsOf = (slot: Slot): unknown[] =>
  slot.speakers.flatMap(({ rule, direct }) => [rule.region, direct]);

/** Where each rule has the last word on something; rules that never have are not in the map. */
export function ruleWords(component: Component): ReadonlyMap<Rule, Extent> {
  const { extents } = component.space;
  const words = new Map<Rule, Extent>();
  for (const slot of slotsOf(component).values()) {
    lastWords(component, slot).forEach((where, place) => {
      if (where === NOWHERE) return;
      const { rule } = slot.speakers[place]!;
      words.set(rule, extents.or(words.get(rule) ?? NOWHERE, where));
    });
  }
  return words;
}
