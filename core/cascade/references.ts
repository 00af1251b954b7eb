import type { Part } from '../components/anatomy/part';
import type { Component } from '../components/component';
import { calcReferences } from '../css/calc';
import type { Property } from '../css/property';
import type { Value } from '../css/value-syntax';
import { calcIn, measuredBy, withoutEm } from './font-relative';
import { levels } from './inheritance';

/** A property of a part, as `@part.property` names it. */
export interface PartProperty {
  readonly part: string;
  readonly property: string;
}

/** What a value refers to: what its calculation names, and the font size that lengths in `em` go by. */
export function referencesOfValue(
  component: Component,
  part: Part,
  property: Property,
  value: Value,
): readonly PartProperty[] {
  const calc = calcIn(value);
  if (!calc) return [];
  return calcReferences(withoutEm(calc, property, measuredBy(component, part, property))).properties;
}

/**
 * Some properties and all that their values refer to, however indirectly: what calculations name, and the font sizes that
 * lengths in `em` go by. Each once, in order of first mention.
 */
export function withReferred(component: Component, start: Iterable<PartProperty>): readonly PartProperty[] {
  const found = new Map<string, PartProperty>();
  const add = (reference: PartProperty): void => {
    const key = `${reference.part} ${reference.property}`;
    if (!found.has(key)) found.set(key, reference);
  };
  for (const each of start) add(each);
  // A map hands out what is added while it is walked through.
  for (const { part: name, property } of found.values()) {
    for (const { part, slot } of levels(component, name, property)) {
      for (const { setting } of slot?.speakers ?? [])
        referencesOfValue(component, part, setting.property, setting.value).forEach(add);
    }
  }
  return [...found.values()];
}
