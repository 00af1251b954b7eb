import type { Component } from '../../components/component';
import { calcReferences } from '../../css/calc';
import { withReferred } from '../references';
import { resolverFor } from '../resolve';
import { slotsOf, type Slot } from '../slots';
import type { System } from '../../components/system';
import { EVERYWHERE, NOWHERE, type Extent } from '../../space/extent';
import { remembered } from '../answer-memory';
import { absentWhere, winsOnRaw, winningSources } from '../winning-rules';

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
  const inputs = [system.tokens, system.rootFontSize, component.rules, component.anatomy];
  return slotsOf(component).all.map(slot =>
    remembered(component, `looks ${slot.name}`, inputs, () => ({
      slot,
      looks: slotLooks(component, slot, system),
    })),
  );
}

function slotLooks(component: Component, slot: Slot, system: System): Extent[] {
  const { extents } = component.space;
  // Whether a part is there is itself a look, unless a part around it is not.
  const hidden = slot.property.name === 'present' ? component.anatomy.outer(slot.part) : slot.part;
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
    const outcomes = resolverFor(component, { tokens, rootFontSize: system.rootFontSize }).outcomes(
      combination,
    );
    return outcomes[slot.part.name]![slot.property.name]!.value;
  });
  return values.join('\n');
}

/** The extents in each of which a slot's value is one and the same. */
function cells(component: Component, slot: Slot): Extent[] {
  const { extents } = component.space;
  return winsOnRaw(component, slot).flatMap((where, place) => {
    if (where === NOWHERE) return [];
    const { value } = slot.speakers[place]!.setting;
    if (value.kind !== 'calc') return [where];
    return withReferred(component, calcReferences(value.calc).properties).reduce<Extent[]>(
      (parts, { part: other, property }) =>
        parts.flatMap(part =>
          winningSources(component, other, property)
            .map(source => extents.and(part, source.where))
            .filter(each => each !== NOWHERE),
        ),
      [where],
    );
  });
}
