import type { Component, Rule, Setting } from './component';
import type { Property } from './property-registry';

/** A rule's word on a slot. */
export interface Speaker {
  readonly rule: Rule;
  readonly setting: Setting;
  /** Whether the rule names this property itself, not a shorthand that also speaks for it. */
  readonly direct: boolean;
}

/** A property of a part that some rule names, with every rule that speaks for it, in order. */
export interface Slot {
  /** `part.property`. */
  readonly name: string;
  readonly part: string;
  readonly property: Property;
  readonly speakers: readonly Speaker[];
}

const known = new WeakMap<Component, ReadonlyMap<string, Slot>>();

/**
 * The slots of a component by name: parts in anatomical order, properties in the order in which rules first name them. A
 * shorthand speaks for its own slot and for each of its sides that has a slot, in the order of the rules.
 */
export function slotsOf(component: Component): ReadonlyMap<string, Slot> {
  let slots = known.get(component);
  if (!slots) {
    slots = build(component);
    known.set(component, slots);
  }
  return slots;
}

function build({ anatomy, rules }: Component): Map<string, Slot> {
  const open = new Map<string, Map<string, Slot & { speakers: Speaker[] }>>(
    anatomy.parts.map(part => [part.name, new Map()]),
  );
  for (const { settings } of rules) {
    for (const { part, property } of settings) {
      const own = open.get(part)!;
      const name = `${part}.${property.name}`;
      if (!own.has(property.name)) own.set(property.name, { name, part, property, speakers: [] });
    }
  }
  for (const rule of rules) {
    for (const setting of rule.settings) {
      const own = open.get(setting.part)!;
      own.get(setting.property.name)!.speakers.push({ rule, setting, direct: true });
      for (const side of setting.property.longhands)
        own.get(side)?.speakers.push({ rule, setting, direct: false });
    }
  }
  return new Map(
    [...open.values()].flatMap(own => [...own.values()].map(slot => [slot.name, slot] as const)),
  );
}
