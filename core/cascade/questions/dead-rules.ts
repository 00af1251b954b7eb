import type { Component, Rule } from '../../components/component';
import { isSetDirectly, slotsOf, type Slot } from '../slots';
import { NOWHERE, type Extent } from '../../space/extent';
import type { Limit } from '../../space/limit';
import { winsOnAllowed } from '../winning-rules';

/** A rule, or one of its properties, that never has the last word. */
export interface Dead {
  readonly rule: Rule;
  /** `part.property`; `null` for the whole rule. */
  readonly property: string | null;
  /** Why: it says nothing; its region never occurs; later rules always speak. */
  readonly because: 'silent' | 'never' | 'covered';
  /** The rules that have the last word in its stead, in order. */
  readonly by: readonly Rule[];
  /** The limits that keep its region from occurring. */
  readonly limits: readonly Limit[];
}

/**
 * Own rules that never matter, and single properties of other rules that never do, in the order of the rules. Of a nested
 * component, what this one has no use for is no fault.
 */
export function deadRules(component: Component): Dead[] {
  const entries = slotEntries(component);
  const places = new Map(component.rules.map((rule, place) => [rule, place]));
  return component.rules.flatMap((rule): Dead[] => {
    if (rule.nested !== undefined) return [];
    const none = { rule, by: [], limits: [] };
    if (rule.settings.length === 0) return [{ ...none, property: null, because: 'silent' }];
    if (component.space.allowedIn(rule.region) === NOWHERE) {
      return [{ ...none, property: null, because: 'never', limits: limitsAgainst(component, rule) }];
    }
    const own = entries.get(rule) ?? [];
    const dead = own.filter(({ where }) => where === NOWHERE);
    const all = dead.length === own.length;
    const groups = all
      ? [{ property: null, covered: dead }]
      : dead.map(entry => ({ property: entry.slot.name, covered: [entry] }));
    return groups.map(({ property, covered }) => ({
      ...none,
      property,
      because: 'covered',
      by: coveringRules(component, rule, covered, places),
    }));
  });
}

/** Where a rule of a slot has the last word. */
interface Heard {
  readonly rule: Rule;
  readonly where: Extent;
}

/** A rule's place in a slot. */
interface SlotEntry {
  readonly slot: Slot;
  /** The rules of the slot that are heard anywhere, of which there may be far fewer than speak. */
  readonly heard: readonly Heard[];
  /** Where the rule itself is heard. */
  readonly where: Extent;
}

/** Under which names each own rule speaks, and where it has the last word there. */
function slotEntries(component: Component): Map<Rule, SlotEntry[]> {
  const entries = new Map<Rule, SlotEntry[]>();
  for (const slot of slotsOf(component).all.filter(isSetDirectly)) {
    const parted = winsOnAllowed(component, slot);
    const all = slot.speakers.map(({ rule }, place): Heard => ({ rule, where: parted[place]! }));
    const heard = all.filter(({ where }) => where !== NOWHERE);
    slot.speakers.forEach(({ rule, direct }, place) => {
      if (!direct) return;
      const own = entries.get(rule) ?? [];
      own.push({ slot, heard, where: parted[place]! });
      entries.set(rule, own);
    });
  }
  return entries;
}

/** The rules that have a rule's word, in the order of `places`. */
function coveringRules(
  component: Component,
  rule: Rule,
  covered: readonly SlotEntry[],
  places: ReadonlyMap<Rule, number>,
): Rule[] {
  const { extents } = component.space;
  const covering = new Set<Rule>();
  for (const { heard } of covered)
    for (const each of heard) if (extents.meets(each.where, rule.region)) covering.add(each.rule);
  return [...covering].sort((a, b) => places.get(a)! - places.get(b)!);
}

/** Limits that are broken somewhere in a rule's region; together they are broken everywhere in it. */
function limitsAgainst({ space }: Component, rule: Rule): Limit[] {
  const broken = space.limits.filter(limit => space.extents.meets(space.brokenWhere(limit), rule.region));
  const region = space.extents.of(rule.region);
  const alone = broken.find(limit => space.extents.minus(region, space.brokenWhere(limit)) === NOWHERE);
  return alone ? [alone] : broken;
}
