import type { Part } from '../components/anatomy/part';
import type { Component } from '../components/component';
import { ObjectMemo } from '../json/object-memo';
import type { Property } from '../css/property';
import { propertyNamed } from '../css/property-registry';
import type { Value } from '../css/value-syntax';
import { slotsOf, type Slot } from './slots';

/** A part whose word on a property may hold, and those who speak there. */
export interface Level {
  readonly part: Part;
  /** `null` where no rule speaks for the property on this part. */
  readonly slot: Slot | null;
}

const known = new ObjectMemo<Map<string, readonly Level[]>>();

/**
 * The parts whose word on a property may hold for a part, from the inside out: the part itself and, as long as it may leave the
 * word to the part around it, that one; none where there is no such part or property. This and `inheritanceAt` say once who is heard; resolution asks it of one combination, the
 * reading of all, stylesheets and checks of each level.
 */
export function levels(component: Component, part: string, property: string): readonly Level[] {
  const byName = known.of([component.rules, component.anatomy], () => new Map<string, readonly Level[]>());
  const key = `${part} ${property}`;
  let found = byName.get(key);
  if (!found) {
    const row = propertyNamed(property);
    byName.set(key, (found = row ? [...walk(component, part, row)] : []));
  }
  return found;
}

function* walk({ rules, anatomy }: Component, name: string, property: Property): Generator<Level> {
  const slots = slotsOf({ rules, anatomy } as Component);
  for (let part = anatomy.byName.get(name); part; part = anatomy.outer(part)) {
    const slot = slots.deciding(part.name, property.name) ?? null;
    yield { part, slot };
    const leaves = (value: Value | null): boolean => inheritanceAt(value, property) === 'outside';
    if (!leaves(null) && !slot?.speakers.some(({ setting }) => leaves(setting.value))) return;
  }
}

/**
 * What follows from the last word on a part (`null`: nobody spoke): it holds; the part around is asked; CSS's own initial value
 * holds; or what the reset leaves does (CSS Cascade 5, sections 7.1 to 7.3).
 */
export function inheritanceAt(
  value: Value | null,
  property: Property,
): 'here' | 'outside' | 'initial' | 'reset' {
  if (value === null) return property.inherited ? 'outside' : 'reset';
  if (value.kind !== 'wide') return 'here';
  if (value.css === 'inherit' || (value.css === 'unset' && property.inherited)) return 'outside';
  return 'initial';
}
