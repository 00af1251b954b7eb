import type { Component } from '../rules/component';
import { calcReferences } from '../rules/calc';
import { propertyNamed, shorthandOf } from '../rules/property-registry';
import { resolverFor } from '../rules/resolve';
import { slotsOf, type Slot } from '../rules/slots';
import type { System } from '../rules/system';
import { EVERYWHERE, NOWHERE, type Extent } from '../space/extent';
import { kept } from './kept';
import { rawWords } from './last-words';

/** A property's looks: all combinations parted by what it comes to, in all contexts together. */
export interface SlotLooks {
  readonly slot: Slot;
  /** Disjoint; together all raw combinations. One of them may be where nothing speaks or the part is absent. */
  readonly looks: readonly Extent[];
}

/**
 * Parts the combinations by the settled value of each property in every context. What a calculation comes to is
 * fixed by who speaks last for all that it refers to, so one combination stands for each such cell. Parts that are absent
 * look like nothing, whatever their properties are.
 */
export function looksOf(component: Component, system: System): SlotLooks[] {
  const inputs = [system.tokens, system.rootFontSize, component];
  return [...slotsOf(component).values()].map(slot =>
    kept(component.space, `looks ${slot.name}`, inputs, () => ({
      slot,
      looks: slotLooks(component, slot, system),
    })),
  );
}

function slotLooks(component: Component, slot: Slot, system: System): Extent[] {
  const { extents } = component.space;
  // Whether a part is there is itself a look, unless a part around it is not.
  const hidden = slot.property.name === 'present' ? component.anatomy.around.get(slot.part) : slot.part;
  const absent = absentWhere(component, hidden);
  const byValue = new Map<string, Extent>();
  let unsaid = extents.minus(EVERYWHERE, absent);
  for (const cell of cells(component, slot)) {
    const here = extents.minus(cell, absent);
    if (here === NOWHERE) continue;
    const key = valueKey(component, slot, system, extents.first(here)!);
    byValue.set(key, extents.or(byValue.get(key) ?? NOWHERE, here));
    unsaid = extents.minus(unsaid, here);
  }
  return [...byValue.values(), unsaid, absent].filter(extent => extent !== NOWHERE);
}

function valueKey(component: Component, slot: Slot, system: System, combination: readonly number[]): string {
  const values = system.tokens.everyContext().map(tokens => {
    const around = { tokens, rootFontSize: system.rootFontSize };
    const outcomes = resolverFor(component, around).outcomes(combination);
    return outcomes[slot.part]![slot.property.name]!.value;
  });
  return values.join('\n');
}

/** The extents in each of which a slot's value is one and the same. */
function cells(component: Component, slot: Slot): Extent[] {
  const { extents } = component.space;
  const slots = slotsOf(component);
  return rawWords(component, slot).flatMap((where, place) => {
    if (where === NOWHERE) return [];
    const { value } = slot.speakers[place]!.setting;
    if (value.kind !== 'calc') return [where];
    const referred = referredSlots(component, slots, slot);
    return referred.reduce<Extent[]>(
      (parts, other) => {
        const words = rawWords(component, other);
        const spoken = extents.union(words);
        return parts.flatMap(part =>
          [...words.map(each => extents.and(part, each)), extents.minus(part, spoken)].filter(
            each => each !== NOWHERE,
          ),
        );
      },
      [where],
    );
  });
}

/** All slots that a slot's calculations refer to, however indirectly, with those that inherited ones fall back on. */
function referredSlots(component: Component, slots: ReadonlyMap<string, Slot>, start: Slot): Slot[] {
  const found = new Set<Slot>([start]);
  for (const slot of found) {
    for (const { setting } of slot.speakers) {
      if (setting.value.kind !== 'calc') continue;
      for (const { part, property } of calcReferences(setting.value.calc).properties) {
        for (let here: string | undefined = part; here; here = component.anatomy.around.get(here)) {
          for (const name of [property, shorthandOf(property)]) {
            const other = slots.get(`${here}.${name}`);
            if (other) found.add(other);
          }
          if (!propertyNamed(property)?.inherited) break;
        }
      }
    }
  }
  found.delete(start);
  return [...found];
}

/** Where a part, or one around it, is not there. */
function absentWhere(component: Component, part: string | undefined): Extent {
  const { extents } = component.space;
  let absent: Extent = NOWHERE;
  for (let here = part; here; here = component.anatomy.around.get(here)) {
    const slot = slotsOf(component).get(`${here}.present`);
    if (!slot) continue;
    rawWords(component, slot).forEach((where, place) => {
      if (slot.speakers[place]!.setting.text.trim() === 'false') absent = extents.or(absent, where);
    });
  }
  return absent;
}
