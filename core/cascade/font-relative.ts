import type { Part } from '../components/anatomy/part';
import type { Component } from '../components/component';
import { mapCalc, type Calc } from '../css/calc';
import type { Property } from '../css/property';
import { readQuantity } from '../css/units';
import type { Value } from '../css/value-syntax';

/**
 * The part whose font size `em` is measured against in a property of a part: its own, for the font size itself that of the
 * part around (CSS Values 4, section 6.1.1). `null`: the page's.
 */
export const measuredBy = ({ anatomy }: Component, part: Part, property: Property): Part | null =>
  (property.name === 'font-size' ? anatomy.outer(part) : part) ?? null;

/** A calculation for use on another part: what is measured in `em` refers to the font size instead. */
export function withoutEm(calc: Calc, property: Property, measured: Part | null): Calc {
  if (!measured) return calc;
  return mapCalc(calc, leaf => {
    const ems = leaf.kind === 'number' ? emsIn(leaf.value, leaf.unit, property) : null;
    if (ems === null) return null;
    return {
      kind: 'product',
      terms: [
        { sign: '*', term: { kind: 'number', value: ems, unit: '' } },
        { sign: '*', term: { kind: 'property', part: measured.name, property: 'font-size' } },
      ],
    };
  });
}

function emsIn(value: number, unit: string, property: Property): number | null {
  if (unit === 'em') return value;
  return unit === '%' && property.name === 'font-size' ? value / 100 : null;
}

/** A value as a calculation, where it is one or a single number with a unit. */
export function calcIn(value: Value): Calc | null {
  if (value.kind === 'calc') return value.calc;
  const quantity = value.kind === 'literal' ? readQuantity(value.css, 0) : null;
  return quantity && { kind: 'number', value: quantity.value, unit: quantity.unit };
}
