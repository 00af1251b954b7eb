import type { Part } from '../components/anatomy/part';
import type { Component, Rule } from '../components/component';
import { ObjectMemo } from '../json/object-memo';
import { EVERYWHERE, NOWHERE, type Extent } from '../space/extent';
import { TangledSets } from '../space/node-store';
import type { Space } from '../space/space';
import { propertyNamed } from '../css/property-registry';
import { remembered } from './answer-memory';
import { levels, inheritanceAt, type Level } from './inheritance';
import { slotsOf, type Slot, type SlotRule } from './slots';

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
 * Where each speaker of a slot is heard: its region without the regions of all later speakers; in the slot's order. These
 * extents are disjoint. Limits are left out of account, so that nothing depends on axes that no rule names. A side's slot is
 * there only where a rule names that side. Costs one union and one difference a speaker. Throws `TangledRules`.
 */
export function winsOnRaw(component: Component, slot: Slot): readonly Extent[] {
  const { space } = component;
  return raw.of([slot, space], () =>
    remembered(component, `heard ${slot.name}`, inputsOf(slot), () =>
      toldOf(slot, () => partedAmong(slot.speakers, space, ({ direct }) => direct)),
    ),
  );
}

/** While nothing is edited the slot is the same object, and need not be compared with an earlier one. */
const raw = new ObjectMemo<readonly Extent[]>();
const allowedOnly = new ObjectMemo<readonly Extent[]>();

/** The same as far as the limits allow: the combinations that can be. */
export function winsOnAllowed(component: Component, slot: Slot): readonly Extent[] {
  const { space } = component;
  return allowedOnly.of([slot, space], () =>
    remembered(component, `heard and allowed ${slot.name}`, inputsOf(slot), () =>
      toldOf(slot, () => winsOnRaw(component, slot).map(where => space.extents.and(where, space.allowed))),
    ),
  );
}

function toldOf<Answer>(slot: Slot, compute: () => Answer): Answer {
  try {
    return compute();
  } catch (error) {
    throw error instanceof TangledSets ? new TangledRules(slot) : error;
  }
}

/** Gives each place to the last who speaks there, within what some speakers name. */
function partedAmong(
  speakers: readonly SlotRule[],
  space: Space,
  names: (speaker: SlotRule) => boolean,
): Extent[] {
  const { extents } = space;
  const named = extents.union(speakers.filter(names).map(({ rule }) => space.spoken(rule)));
  const parted: Extent[] = [];
  let later: Extent = NOWHERE;
  for (let place = speakers.length - 1; place >= 0; place--) {
    const region = space.spoken(speakers[place]!.rule);
    parted.unshift(extents.minus(extents.and(named, region), later));
    later = extents.or(later, region);
  }
  return parted;
}

const inputsOf = (slot: Slot): unknown[] =>
  slot.speakers.flatMap(({ rule, direct }) => [spokenAs(rule), direct]);

/** By what it is known that a rule still speaks in the same place. */
const spokenAs = ({ region, extent }: Rule): unknown => extent ?? region;

/** Where a rule is heard on something, as far as the limits allow. */
export function winningExtents(component: Component, rule: Rule): Extent {
  const { extents } = component.space;
  const slots = slotsOf(component);
  const spokenFor = new Set(
    rule.settings.flatMap(({ part, property }) =>
      [property.name, ...property.longhands].flatMap(name => slots.find(part, name) ?? []),
    ),
  );
  let heard: Extent = NOWHERE;
  for (const slot of spokenFor) {
    winsOnAllowed(component, slot).forEach((where, place) => {
      if (slot.speakers[place]!.rule === rule) heard = extents.or(heard, where);
    });
  }
  return heard;
}

/** From whom a property of a part has its value, in some combinations. */
export interface WinningSource {
  /** On which part it is said: the part itself, or one around it. */
  readonly part: Part;
  /** The rule's word, or what holds where no rule is heard. */
  readonly said: { readonly slot: Slot; readonly speaker: SlotRule } | 'reset' | 'initial' | 'page';
  readonly where: Extent;
}

/**
 * All from whom a property of a part may have its value: own rules, shorthands, parts around where it is inherited, the reset.
 * The extents are disjoint and together all raw combinations. Throws `TangledRules`.
 */
export function winningSources(
  component: Component,
  part: string,
  property: string,
): readonly WinningSource[] {
  const chain = levels(component, part, property);
  if (chain.length === 0) return [];
  const inputs = chain.flatMap(({ part: own, slot }) => [
    own,
    ...(slot ? slot.speakers.flatMap(({ rule, setting }) => [spokenAs(rule), setting.value]) : []),
  ]);
  const found = remembered(component, `sources ${part} ${property}`, inputs, () =>
    collected(component, chain, property),
  );
  // What is remembered names rules of an earlier version, which may differ in other properties.
  return found.map(({ level, place, said, where }) => {
    const { part: own, slot } = chain[level]!;
    return {
      part: own,
      where,
      said: place === null ? said : { slot: slot!, speaker: slot!.speakers[place]! },
    };
  });
}

interface Collected {
  readonly level: number;
  /** Place among the speakers of the level's slot. */
  readonly place: number | null;
  readonly said: 'reset' | 'initial' | 'page';
  readonly where: Extent;
}

function collected(component: Component, chain: readonly Level[], name: string): Collected[] {
  const { extents } = component.space;
  const property = propertyNamed(name)!;
  const found: Collected[] = [];
  let open: Extent = EVERYWHERE;
  chain.forEach(({ slot }, level) => {
    let outside: Extent = NOWHERE;
    const settle = (where: Extent, place: number | null): void => {
      const here = extents.and(open, where);
      if (here === NOWHERE) return;
      const value = place === null ? null : slot!.speakers[place]!.setting.value;
      const result = inheritanceAt(value, property);
      if (result === 'outside') outside = extents.or(outside, here);
      else if (result === 'here') found.push({ level, place, said: 'reset', where: here });
      else found.push({ level, place: null, said: result, where: here });
    };
    const heard = slot ? toldOf(slot, () => partedAmong(slot.speakers, component.space, () => true)) : [];
    heard.forEach((where, place) => settle(where, place));
    settle(extents.minus(EVERYWHERE, extents.union(heard)), null);
    open = outside;
  });
  if (open !== NOWHERE) found.push({ level: chain.length - 1, place: null, said: 'page', where: open });
  return found;
}

/** Where a part, or one around it, is not there. */
export function absentWhere(component: Component, part: Part | undefined): Extent {
  const { extents } = component.space;
  let absent: Extent = NOWHERE;
  for (let here = part; here; here = component.anatomy.outer(here)) {
    const slot = slotsOf(component).find(here.name, 'present');
    if (!slot) continue;
    winsOnRaw(component, slot).forEach((where, place) => {
      const { value } = slot.speakers[place]!.setting;
      if (value.kind === 'literal' && value.css === 'false') absent = extents.or(absent, where);
    });
  }
  return absent;
}
