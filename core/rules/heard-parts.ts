import type { Component, Setting } from './component';
import { propertyNamed } from './property-registry';

/** The property of a setting and the sides for which it speaks too. */
export const namesOf = ({ property }: Setting): readonly string[] => [property.name, ...property.longhands];

/** Whether a setting leaves the word to the part around. */
export const isInherit = ({ value }: Setting): boolean => value.kind === 'literal' && value.css === 'inherit';

/**
 * The parts whose word on a property may hold for a part, from the inside out: the part itself and, where the property is
 * inherited or some rule says `inherit`, the parts around it.
 */
export function heardParts(component: Component, part: string, property: string): string[] {
  const { around } = component.anatomy;
  const parts = [part];
  const inherits = (name: string): boolean =>
    propertyNamed(property)?.inherited === true ||
    component.rules.some(rule =>
      rule.settings.some(
        setting => setting.part === name && isInherit(setting) && namesOf(setting).includes(property),
      ),
    );
  for (let here = part; inherits(here) && around.has(here);) {
    here = around.get(here)!;
    parts.push(here);
  }
  return parts;
}
