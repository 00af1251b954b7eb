import type { Component, Rule, Setting } from '../../components/component';
import { winsOnAllowed } from '../winning-rules';
import { isSetDirectly, slotsOf, type Slot } from '../slots';
import { NOWHERE, type Extent } from '../../space/extent';

/** A state of a nested component that shows by itself, and no longer in its parent. */
export interface Silenced {
  readonly slot: Slot;
  /** The nested rule that is never heard. */
  readonly state: Rule;
  /** The parent's setting that covers it, the last one. */
  readonly by: { readonly rule: Rule; readonly setting: Setting };
}

/**
 * Nested rules for states that their components keep to themselves, which the parent's own rules cover wherever they speak:
 * whoever points at the nested component sees no answer. That a parent covers what a nested one is at rest is what it may.
 */
export function silencedStates(component: Component): Silenced[] {
  if (component.nested.length === 0) return [];
  return slotsOf(component).all.flatMap(slot => {
    if (slot.part.nested === null || !isSetDirectly(slot)) return [];
    const heard = winsOnAllowed(component, slot);
    return slot.speakers.flatMap(({ rule, direct }, place): Silenced[] => {
      if (!direct || heard[place] !== NOWHERE || !isState(component, rule)) return [];
      const by = slot.speakers.findLast(
        (other, later) =>
          later > place && other.rule.nested === undefined && meets(component, other.rule, rule),
      );
      return by && isHeardByItself(component, slot, rule) ? [{ slot, state: rule, by }] : [];
    });
  });
}

/** Whether a rule speaks by a state that its component keeps to itself, somewhere. */
function isState({ space }: Component, { extent }: Rule): boolean {
  if (extent === undefined || space.extents.and(extent, space.allowed) === NOWHERE) return false;
  return [...space.extents.support(extent)].some(
    axis => axis >= space.axes.length && space.everyAxis[axis]!.kind === 'state',
  );
}

const meets = ({ space }: Component, a: Rule, b: Rule): boolean =>
  space.extents.and(space.extents.and(space.spoken(a), space.spoken(b)), space.allowed) !== NOWHERE;

/** Whether a nested rule has the last word somewhere as long as its component stands alone. */
function isHeardByItself(component: Component, slot: Slot, rule: Rule): boolean {
  const { name, component: nested } = component.nested.find(each => each.name === rule.nested)!;
  const inside = (text: string): string => text.slice(name.length + 1);
  const own = slotsOf(nested).find(inside(slot.part.name), slot.property.name);
  if (!own) return false;
  const heard: readonly Extent[] = winsOnAllowed(nested, own);
  return own.speakers.some(
    (speaker, place) => speaker.rule.id === inside(rule.id) && heard[place] !== NOWHERE,
  );
}
