import type { Component } from '@periwinkle/core/components/component';
import { regionArrangement } from '@periwinkle/core/cascade/plates/region-plate';
import type { ConditionDocument } from '@periwinkle/core/documents/condition-document';
import { ProblemList } from '@periwinkle/core/json/problem';
import type { Box } from '@periwinkle/core/space/box';
import { readCondition, writeExact } from '@periwinkle/core/space/condition';

/** A region as the address writes it: `pointer:over+down,validity:invalid`. */
function regionText(component: Component, region: Box): string {
  return Object.entries(writeExact(region, component.space.axes))
    .map(([axis, values]) => `${axis}:${values.join('+')}`)
    .join(',');
}

/** Reads it back; `null` when it names what is not there. */
export function readRegion(component: Component, text: string | null): Box | null {
  if (!text) return null;
  const condition: ConditionDocument = Object.fromEntries(
    text.split(',').map(pair => {
      const [axis = '', values = ''] = pair.split(':');
      return [axis, values.split('+')];
    }),
  );
  return readCondition(condition, component.space.axes, '', new ProblemList());
}

/** The address of a plate that shows a region, with the ledger at a property (`part.property`). */
export function regionAddress(system: string, component: Component, region: Box, property: string): string {
  const { across, down, hold } = regionArrangement(component, region, null);
  const parameters = new URLSearchParams({ across: across.join(','), down: down.join(',') });
  const held = Object.entries(hold).map(pair => pair.join(':'));
  if (held.length > 0) parameters.set('hold', held.join(','));
  parameters.set('region', regionText(component, region));
  parameters.set('property', property);
  return `/${system}/${component.id}?${parameters}`;
}
