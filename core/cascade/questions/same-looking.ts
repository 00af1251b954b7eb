import type { Component } from '../../components/component';
import type { System } from '../../components/system';
import { EVERYWHERE, NOWHERE, type Extent } from '../../space/extent';
import type { Box } from '../../space/box';
import { looksOf } from './looks';

/** Two values of an axis between which nothing changes in some combinations of the other axes. */
export interface SameLooking {
  /** Index of the axis in the space. */
  readonly axis: number;
  /** Indices of the values, ascending. */
  readonly values: readonly [number, number];
  /** Combinations of the other own axes, the axis itself free. */
  readonly where: Extent;
  /** Where both values can be at all. */
  readonly both: Extent;
  /** Whether they look the same wherever both can be. */
  readonly everywhere: boolean;
  /** Number of pairs that look the same. */
  readonly pairs: bigint;
}

/** For every axis the pairs of values that look the same somewhere, in all contexts, with where. */
export function sameLooking(component: Component, system: System): SameLooking[] {
  return component.space.axes.flatMap((_, axis) => sameLookingAlong(component, system, axis, 'somewhere'));
}

/**
 * The pairs of values of one axis that look the same somewhere, or wherever both can be. The latter is the cheaper question:
 * most pairs are told apart by the first property that depends on the axis.
 */
export function sameLookingAlong(
  component: Component,
  system: System,
  axis: number,
  asked: 'somewhere' | 'everywhere',
): SameLooking[] {
  const { space } = component;
  const { extents } = space;
  const differing = looksOf(component, system).filter(({ looks }) =>
    looks.some(look => extents.support(look).has(axis)),
  );
  const { values } = space.axes[axis]!;
  const cut = (extent: Extent): Extent[] => values.map((_, value) => extents.along(extent, axis, value));
  const allowed = cut(space.allowed);
  const slots = differing.map(({ looks }) => looks.map(cut));
  const found: SameLooking[] = [];
  for (let later = 1; later < values.length; later++) {
    for (let earlier = 0; earlier < later; earlier++) {
      const both = extents.and(allowed[earlier]!, allowed[later]!);
      let where = both;
      for (const looks of slots) {
        if (where === NOWHERE || (asked === 'everywhere' && where !== both)) break;
        const alike = looks.map(look => extents.and(look[earlier]!, look[later]!));
        where = extents.and(where, extents.union(alike));
      }
      // Whatever nested components are in by themselves: there must be none in which it differs.
      where = extents.minus(both, extents.shadow(extents.minus(both, where)));
      const everywhere = where === both;
      if (where === NOWHERE || (asked === 'everywhere' && !everywhere)) continue;
      const pairs = extents.count(where) / BigInt(values.length);
      found.push({ axis, values: [earlier, later], where, both, everywhere, pairs });
    }
  }
  return found;
}

/** The same as few readable conditions on the other axes. */
export function sameLookingRegions({ space }: Component, found: SameLooking): Box[] {
  const free = space.extents.minus(EVERYWHERE, found.both);
  return space.readable(found.where, free);
}
