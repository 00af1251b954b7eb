import type { Part } from '../components/anatomy/part';
import type { Component, Rule, Setting } from '../components/component';
import { ObjectMemo } from '../json/object-memo';
import type { Property } from '../css/property';
import { shorthandOf } from '../css/property-registry';

/** A rule's word on a slot. */
export interface SlotRule {
  readonly rule: Rule;
  readonly setting: Setting;
  /** Whether the rule names this property itself, not a shorthand that also speaks for it. */
  readonly direct: boolean;
}

/** A property of a part that some rule names, with every rule that speaks for it, in order. */
export interface Slot {
  /** `part.property`, as people read it. */
  readonly name: string;
  readonly part: Part;
  readonly property: Property;
  readonly speakers: readonly SlotRule[];
}

/** The slots of some rules: parts in anatomical order, properties in the order in which rules first name them. */
export class SlotTable {
  readonly all: readonly Slot[];

  constructor(private readonly byPart: ReadonlyMap<string, ReadonlyMap<string, Slot>>) {
    this.all = [...byPart.values()].flatMap(own => [...own.values()]);
  }

  /** The slot of just this property. */
  find(part: string, property: string): Slot | undefined {
    return this.byPart.get(part)?.get(property);
  }

  /** The slot whose speakers decide a property: its own, else that of the nearest shorthand that sets it. */
  deciding(part: string, property: string): Slot | undefined {
    for (let name: string | undefined = property; name !== undefined; name = shorthandOf(name)) {
      const slot = this.find(part, name);
      if (slot) return slot;
    }
    return undefined;
  }
}

/** Whether a component's own rules speak, not only those of what is nested in it. */
export const isSetDirectly = ({ speakers }: Slot): boolean =>
  speakers.some(({ rule }) => rule.nested === undefined);

const tables = new ObjectMemo<SlotTable>();

/**
 * The slots of a component. A shorthand speaks for its own slot and for each of its sides that has a slot, in the order of the
 * rules.
 */
export const slotsOf = ({ anatomy, rules }: Component): SlotTable =>
  tables.of([rules, anatomy], () => build(anatomy.everyPart, rules));

function build(parts: readonly Part[], rules: readonly Rule[]): SlotTable {
  const open = new Map(
    parts.map(part => [part.name, { part, slots: new Map<string, Slot & { speakers: SlotRule[] }>() }]),
  );
  for (const { settings } of rules) {
    for (const setting of settings) {
      const { part, slots } = open.get(setting.part)!;
      const { property } = setting;
      if (slots.has(property.name)) continue;
      slots.set(property.name, { name: `${part.name}.${property.name}`, part, property, speakers: [] });
    }
  }
  for (const rule of rules) {
    for (const setting of rule.settings) {
      const { slots } = open.get(setting.part)!;
      slots.get(setting.property.name)!.speakers.push({ rule, setting, direct: true });
      for (const side of setting.property.longhands)
        slots.get(side)?.speakers.push({ rule, setting, direct: false });
    }
  }
  const known = [...open].map(([name, { slots }]) => [name, new Map([...slots].map(asBefore))] as const);
  return new SlotTable(new Map(known));
}

/** Slots of one property, the latest first, by the first rule that speaks. */
const earlier = new ObjectMemo<Slot[]>();
const MAX_EARLIER = 8;

/** The slot of the same rules from an earlier version, by which others know that nothing in it has changed. */
function asBefore([name, slot]: readonly [string, Slot]): [string, Slot] {
  const { part, property, speakers } = slot;
  const known = earlier.of([part, property, speakers[0]!.rule], () => []);
  const before = known.find(
    other =>
      other.speakers.length === speakers.length &&
      other.speakers.every(({ rule }, place) => rule === speakers[place]!.rule),
  );
  if (before) return [name, before];
  known.unshift(slot);
  known.length = Math.min(known.length, MAX_EARLIER);
  return [name, slot];
}
